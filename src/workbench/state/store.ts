/**
 * The workbench's state: the design and what was computed of it, what is shown and selected. One store an open design.
 * An edit takes effect here at once; the solver and the server follow.
 */
import { createStore } from 'zustand/vanilla';
import { restoreLabel, type OpenDesign, type Step } from '../../contract/api';
import type { Command } from '../../core/design/commands';
import { describeCommands } from '../../core/design/describe';
import { applyChange, editAll, replaceDesign, type Patch } from '../../core/design/edit';
import { treeName, type PortId, type SwitchId, type TreeId } from '../../core/design/ids';
import { problemText } from '../../core/design/problem';
import type { Answers, Design } from '../../core/design/schema';
import type { PortMargins } from '../../core/study/margin';
import type { Remedy } from '../../core/study/finding';
import type { Wish } from '../../core/study/wishes';
import { markWorksheet } from '../../core/study/worksheet';
import { movedEnds, movedVlans } from '../../core/tree/moved';
import { compileNetwork } from '../../core/tree/network';
import type { SettledTree, Solution } from '../../core/tree/settled';
import { unpackTrees } from '../../workers/packing';
import type { SolverAnswer } from '../../workers/solver';
import { api } from './api';
import { movedOf, type Moved } from './moved';
import { createSaver, type SaveState, type Saver } from './saver';
import { inOrder, merged, stillShown } from './shownTrees';
import { stillThere, toggled, type Item, type Selection } from './selection';
import type { SolverClient } from './solverClient';
import { leaveWorksheetUrl, readDraft, saveDraft, type OpenWorksheet } from './worksheet';

/** The lenses that are built so far, in the order of the work. */
export const LENSES = ['Cable', 'Root', 'Steer', 'Group', 'Bundle', 'Break'] as const;
export type Lens = (typeof LENSES)[number];

/** What the drawer opens with in each lens. */
const FIRST_TAB: Readonly<Record<Lens, DrawerTab>> = { Cable: 'cables', Root: 'ledger', Steer: 'paths', Group: 'board', Bundle: 'bundles', Break: 'clock' };

/** What the drawer below the map can list. */
export type DrawerTab = 'board' | 'regions' | 'gain' | 'moving' | 'bundles' | 'modes' | 'flows' | 'plan' | 'clock' | 'outages' | 'order' | 'frames' | 'reach' | 'sides' | 'wishes' | 'sharing' | 'control' | 'paths' | 'costs' | 'ledger' | 'roots' | 'losses' | 'moved' | 'cables' | 'neighbours' | 'hosts' | 'vlans' | 'findings' | 'worksheet' | 'history';

/** Where switches stand on the map: at their own places, or hanging under the root of the tree that is shown. */
export type MapLayout = 'placed' | 'hung';

/** An earlier state of the design, shown in place of the present one. */
export interface View {
  /** What it is, as people say it: `revision 12`. */
  readonly label: string;
  readonly revision: number;
  readonly design: Design;
  readonly solution: Solution | null;
  readonly moved: Moved | null;
  /** Set where it has no solution because a worksheet is to be filled in, not because there is none. */
  readonly hidden?: true;
}

export interface WorkbenchState {
  readonly id: string;
  readonly design: Design;
  /** The revision that the design on screen is, or will be once saved. */
  readonly revision: number;
  readonly save: SaveState;
  readonly undoSteps: readonly Step[];
  readonly redoSteps: readonly Step[];
  readonly solution: Solution | null;
  /** Why there is no solution, where the solver cannot give one. */
  readonly problem: string | null;
  readonly moved: Moved | null;
  readonly shownTrees: readonly TreeId[];
  readonly selection: Selection | null;
  readonly lens: Lens;
  readonly drawer: { readonly tab: DrawerTab; readonly open: boolean };
  readonly layout: MapLayout;
  /** Set while an earlier revision is on screen, or a worksheet hides the trees: nothing can be changed then. */
  readonly viewing: Pick<View, 'label' | 'revision' | 'hidden'> | null;
  /** The worksheet on screen: its trees are hidden until it is marked. */
  readonly worksheet: OpenWorksheet | null;
  readonly dialog: 'palette' | 'keys' | null;
  /** What the map should bring into view; a new object each time it is asked. */
  readonly sight: { readonly item: Item } | null;
  /** What was done, or why it could not be, with a way to get there all the same. */
  readonly advice: { readonly text: string; readonly remedy: Remedy | null } | null;
  /** What should block and what should carry, all at once; `trees` null: those shown. `asked` counts how often ways were asked for by pointing. */
  readonly wishes: { readonly list: readonly Wish[]; readonly trees: readonly TreeId[] | null; readonly asked: number };
  /** Long work that can be stopped. */
  readonly busy: { readonly what: string; readonly cancel: () => void } | null;
  /** What turns the clock, for keys and the palette; null while there is no clock. */
  readonly clock: ClockControls | null;
  /** What only the map can do; null while it is not there. */
  readonly controls: MapControls | null;
}

/** What the clock does for keys and the palette. */
export interface ClockControls {
  /** Whether a run is there to be played. */
  readonly ready: () => boolean;
  readonly step: (by: 1 | -1) => void;
  /** Plays a hundredth as fast as life, or halts. */
  readonly playOrHalt: () => void;
  readonly toStart: () => void;
}

/** What the map does for keys, buttons and the palette. */
export interface MapControls {
  readonly closer: () => void;
  readonly farther: () => void;
  readonly whole: () => void;
  readonly tidy: (by: 'tier' | 'root') => void;
  /** Where switches are as drawn. */
  readonly places: () => ReadonlyMap<SwitchId, { readonly x: number; readonly y: number }>;
  /** The middle of what is in view. */
  readonly middle: () => { readonly x: number; readonly y: number };
}

export interface WorkbenchActions {
  /** Starts the solver on the design as it is. */
  start(): void;
  /** Ends the solver; `start` brings it back. */
  stop(): void;
  /** Applies commands as one step. Gives null, or a sentence that says why nothing was changed. */
  act(...commands: Command[]): string | null;
  undo(): void;
  redo(): void;
  select(selection: Selection | null): void;
  /** Selects a thing alone, or adds it to the selection, or takes it out. */
  pick(item: Item, how: 'alone' | 'more'): void;
  /** Selects a thing and brings it into view. */
  goTo(item: Item): void;
  advise(advice: WorkbenchState['advice']): void;
  /** Replaces the wishes. */
  wish(list: readonly Wish[], trees?: readonly TreeId[] | null): void;
  /** Replaces the wishes and looks for ways to fulfil them. */
  askFor(list: readonly Wish[], trees: readonly TreeId[]): void;
  setBusy(busy: WorkbenchState['busy']): void;
  setControls(controls: MapControls | null): void;
  setLayout(layout: MapLayout): void;
  openDialog(dialog: WorkbenchState['dialog']): void;
  /** Shows an earlier state in place of the present one; null goes back to now. */
  look(view: View | null): void;
  /** Hides every computed thing until the answers for a tree are compared, or put aside. */
  openWorksheet(tree: TreeId): void;
  answer(answers: Answers): void;
  /** Compares the answers with the computed tree, shows both, and keeps the result with the design. */
  compareWorksheet(): void;
  /** Closes the worksheet; what was written stays for the next time. */
  closeWorksheet(): void;
  /** How near a port's cost is to moving something in a tree; null where it is not in it, or while another state is looked at. */
  margin(tree: TreeId, sw: SwitchId, port: PortId): Promise<PortMargins | null>;
  /** Makes an earlier revision the newest one. Gives null, or why not. */
  restore(target: number, design: Design): string | null;
  setLens(lens: Lens): void;
  /** Shows one tree alone, or adds it to or takes it from those shown. */
  showTree(tree: TreeId, how: 'alone' | 'toggle'): void;
  /** Shows the next or previous tree alone. */
  stepTree(by: 1 | -1): void;
  forgetMoved(): void;
  openDrawer(tab: DrawerTab): void;
  toggleDrawer(): void;
  /** How many changes the server has not taken yet. */
  unsent(): number;
  /** Gives up on what is not saved, so that the page can be left without a question. */
  abandon(): void;
}

export type Workbench = WorkbenchState & WorkbenchActions;
export type WorkbenchStore = ReturnType<typeof createWorkbench>;

/** What an edit changes before its trees are known. */
type Pending = Pick<WorkbenchState, 'design' | 'revision' | 'selection' | 'undoSteps' | 'redoSteps' | 'save'>;

/** How long an edit waits for its trees before it is shown without them. */
const PATIENCE_MS = 60;

/** Most trees drawn side by side. */
export const MAX_SHOWN = 6;

/** Opens a store over a design; `saver` is there for tests. */
export function createWorkbench(open: OpenDesign, solver: SolverClient, saverFor = serverSaver) {
  const store = createStore<Workbench>()((set, get) => {
    const saver = saverFor(open.id, (save) => {
      if (pending) pending = { ...pending, save };
      else set({ save });
    });
    let told = 0;
    let stopped = false;

    /** Trees as they came, until the answer to the last change is in: an answer holds only what its change moved. */
    let arrived: readonly SettledTree[] = [];
    /** The latest design, until it is shown together with its trees: the screen is drawn once an edit, and never with trees of another design. */
    let pending: Pending | null = null;
    const now = (): Workbench => (pending ? { ...get(), ...pending } : get());
    /** What is put aside while an earlier revision is looked at. */
    let present: Partial<WorkbenchState> | null = null;
    const showPending = (rest: Partial<WorkbenchState>): void => {
      const next = { ...pending, ...rest };
      pending = null;
      if (present) present = { ...present, ...next };
      else set(next);
    };

    async function follow(answer: Promise<SolverAnswer>, label: string | null): Promise<void> {
      const ticket = (told += 1);
      const { design } = now();
      const network = compileNetwork(design); // while the worker solves
      const slow = setTimeout(() => ticket === told && showPending({}), PATIENCE_MS);
      const next = await answer.catch((): SolverAnswer => ({ problem: 'The solver has stopped. Load the page again; nothing is lost.' }));
      clearTimeout(slow);
      if (stopped) return;
      if (!('problem' in next)) arrived = next.all ? unpackTrees(next.trees) : merged(arrived, unpackTrees(next.trees));
      if (ticket !== told) return; // a later change is already on its way
      if ('problem' in next) return showPending({ solution: null, problem: next.problem, moved: null });
      const solution: Solution = { network, trees: arrived };
      const before = present?.solution ?? get().solution;
      const moved = label !== null && before ? movedOf(label, movedEnds(before, solution), 'change', movedVlans(before, solution)) : null;
      const ids = solution.trees.map((tree) => tree.id);
      showPending({ solution, problem: null, moved, shownTrees: stillShown(get().shownTrees, design, ids) });
    }

    /** Puts a change into effect as the next revision. */
    function take(design: Design, patches: readonly Patch[], label: string, steps: Pick<WorkbenchState, 'undoSteps' | 'redoSteps'>): void {
      pending = { design, revision: now().revision + 1, selection: stillThere(design, get().selection), save: now().save, ...steps };
      void follow(solver.change(patches), label);
    }

    return {
      id: open.id,
      design: open.design,
      revision: open.revision,
      save: { is: 'saved' },
      undoSteps: open.undo,
      redoSteps: open.redo,
      solution: null,
      problem: null,
      moved: null,
      shownTrees: [],
      selection: null,
      lens: 'Root',
      drawer: { tab: 'ledger', open: true },
      layout: 'placed',
      viewing: null,
      worksheet: null,
      dialog: null,
      sight: null,
      advice: null,
      wishes: { list: [], trees: null, asked: 0 },
      busy: null,
      controls: null,
      clock: null,

      start() {
        stopped = false;
        void follow(solver.open(now().design), null);
      },
      stop() {
        stopped = true;
        solver.close();
      },
      act(...commands) {
        if (present) return lookingBack(get());
        if (get().advice) set({ advice: null });
        const { design, revision, undoSteps } = now();
        const edited = editAll(design, commands);
        if (!edited.ok) return problemText(edited.error);
        const { patches, inverse } = edited.value;
        if (patches.length === 0) return null;
        const label = describeCommands(design, commands);
        take(edited.value.design, patches, label, { undoSteps: [...undoSteps, { number: revision + 1, label, patches, inverse }], redoSteps: [] });
        saver.send({ kind: 'edit', base: revision, commands });
        return null;
      },
      undo() {
        const { undoSteps, redoSteps, revision, design } = now();
        const step = undoSteps.at(-1);
        if (!step || present) return;
        take(applyChange(design, step.inverse), step.inverse, `took back: ${step.label}`, { undoSteps: undoSteps.slice(0, -1), redoSteps: [...redoSteps, step] });
        saver.send({ kind: 'undo', base: revision, target: step.number });
      },
      redo() {
        const { undoSteps, redoSteps, revision, design } = now();
        const step = redoSteps.at(-1);
        if (!step || present) return;
        take(applyChange(design, step.patches), step.patches, `did again: ${step.label}`, { undoSteps: [...undoSteps, step], redoSteps: redoSteps.slice(0, -1) });
        saver.send({ kind: 'redo', base: revision, target: step.number });
      },
      select(selection) {
        if (pending) pending = { ...pending, selection };
        set({ selection });
      },
      pick: (item, how) => get().select(how === 'more' ? toggled(get().selection, item) : item),
      goTo(item) {
        get().select(item);
        set({ sight: { item } });
      },
      advise: (advice) => set({ advice }),
      wish: (list, trees = null) => set({ wishes: { list, trees, asked: 0 } }),
      askFor: (list, trees) => set({ wishes: { list, trees, asked: get().wishes.asked + 1 }, drawer: { tab: 'wishes', open: true } }),
      setBusy: (busy) => set({ busy }),
      setControls: (controls) => set({ controls }),
      setLayout: (layout) => set({ layout }),
      openDialog: (dialog) => set({ dialog }),
      look(view) {
        const { worksheet } = get();
        if (worksheet && !worksheet.marked) {
          if (view) return set({ advice: { text: 'A worksheet is open: compare it, or put it aside, before you look at something else.', remedy: null } });
          leaveWorksheetUrl();
          set({ worksheet: null });
        }
        if (pending) showPending({});
        if (present) set({ ...present, selection: stillThere(present.design ?? get().design, get().selection), viewing: null });
        present = null;
        if (view === null) return;
        const { design, revision, solution, problem, moved, shownTrees } = get();
        present = { design, revision, solution, problem, moved, shownTrees };
        const { label, revision: number, hidden, ...shown } = view;
        const trees = view.solution?.trees.map((tree) => tree.id) ?? [];
        set({
          ...shown, advice: null, viewing: { label, revision: number, ...(hidden ? { hidden } : {}) }, problem: view.solution || hidden ? null : 'this revision cannot be solved',
          shownTrees: stillShown(shownTrees, view.design, trees), selection: stillThere(view.design, get().selection),
        });
      },
      openWorksheet(tree) {
        get().closeWorksheet();
        get().look(null);
        const { design, revision, id } = get();
        get().look({ label: `a worksheet for ${treeName(tree)}`, revision, design, solution: null, moved: null, hidden: true });
        set({ worksheet: { tree, answers: readDraft(id, tree), marked: null }, lens: 'Root', drawer: { tab: 'worksheet', open: true } });
      },
      answer(answers) {
        const { worksheet, id } = get();
        if (!worksheet || worksheet.marked) return;
        saveDraft(id, worksheet.tree, answers);
        set({ worksheet: { ...worksheet, answers } });
      },
      compareWorksheet() {
        const { worksheet, id } = get();
        if (!worksheet || worksheet.marked) return;
        const { tree, answers } = worksheet;
        get().look(null);
        const marked = markWorksheet(now().design, tree, answers);
        saveDraft(id, tree, null);
        set({ worksheet: { tree, answers, marked } });
        if (get().solution?.trees.some((each) => each.id === tree)) get().showTree(tree, 'alone');
        if (marked.of > 0) get().act({ do: 'keep-worksheet', worksheet: { tree, at: new Date().toISOString(), right: marked.right, of: marked.of, answers } });
      },
      closeWorksheet() {
        const { worksheet } = get();
        if (worksheet && !worksheet.marked) get().look(null);
        set({ worksheet: null });
      },
      margin: (tree, sw, port) => (present ? Promise.resolve(null) : solver.margin(tree, sw, port)),
      restore(target, design) {
        get().look(null);
        const { design: from, revision, undoSteps } = now();
        const { patches, inverse } = replaceDesign(from, design);
        if (patches.length === 0) return `Revision ${target} is no other than the present one.`;
        const label = restoreLabel(target);
        take(design, patches, label, { undoSteps: [...undoSteps, { number: revision + 1, label, patches, inverse }], redoSteps: [] });
        saver.send({ kind: 'restore', base: revision, target });
        return null;
      },
      setLens(lens) {
        const { drawer, shownTrees, solution, design } = get();
        // A run may have trees that the design does not have now.
        set({ lens, drawer: { ...drawer, tab: FIRST_TAB[lens] }, ...(solution ? { shownTrees: stillShown(shownTrees, design, solution.trees.map((tree) => tree.id)) } : {}) });
      },
      openDrawer: (tab) => set({ drawer: { tab, open: true } }),
      toggleDrawer: () => set({ drawer: { ...get().drawer, open: !get().drawer.open } }),
      showTree(tree, how) {
        const { shownTrees } = get();
        if (how === 'alone') set({ shownTrees: [tree] });
        else if (!shownTrees.includes(tree)) set({ shownTrees: inOrder([...shownTrees, tree].slice(-MAX_SHOWN), get().solution) });
        else if (shownTrees.length > 1) set({ shownTrees: shownTrees.filter((shown) => shown !== tree) });
      },
      stepTree(by) {
        const { solution, shownTrees } = get();
        if (!solution || solution.trees.length === 0) return;
        const ids = solution.trees.map((tree) => tree.id);
        const at = shownTrees[0] ? ids.indexOf(shownTrees[0]) : 0;
        set({ shownTrees: [ids[(at + by + ids.length) % ids.length]!] });
      },
      forgetMoved: () => set({ moved: null, advice: null }),
      unsent: () => saver.unsent(),
      abandon: () => saver.abandon(),
    };
  });
  return store;
}

const lookingBack = ({ viewing }: Workbench): string => viewing?.hidden ? 'A worksheet is open: compare it, or put it aside, before you change the design.' : `This is ${viewing?.label ?? 'an earlier revision'}, to look at only: go back to now, or restore it.`;

function serverSaver(id: string, report: (state: SaveState) => void): Saver {
  return createSaver((write) => api.write(id, write), report);
}
