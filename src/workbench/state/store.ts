/**
 * The workbench's state: the design and what was computed of it, what is shown and selected. One store an open design.
 * An edit takes effect here at once; the solver and the server follow.
 */
import { createStore } from 'zustand/vanilla';
import { restoreLabel, type OpenDesign } from '../../contract/api';
import { describeCommands } from '../../core/edit/describe';
import { applyChange, editAll, replaceDesign, type Patch } from '../../core/edit/edit';
import { problemText } from '../../core/model/problem';
import type { Design } from '../../core/model/document';
import { movedEnds, movedVlans } from '../../core/tree/moved';
import { compileNetwork } from '../../core/topology/network';
import type { SettledTree, Solution } from '../../core/tree/settled';
import { unpackTrees } from '../../workers/packing';
import type { SolverAnswer } from '../../workers/solver';
import { api } from './api';
import { NO_FINDINGS, watchFindings, type FindingsWatch } from './findings';
import { forgetWrites, holdPage, keepWrites, orphanedWrites } from './kept';
import { movedOf, type Moved } from './moved';
import { rebase } from './rebase';
import { createSaver, freshName, type Overtaken, type Saver, type SaverRoom } from './saver';
import { inOrder, merged, stillShown } from './shownTrees';
import { stillThere, toggled } from './selection';
import { sendKept } from './sendKept';
import type { SolverClient } from './solverClient';
import type { Workbench, WorkbenchState } from './workbench';
import { leaveWorksheetUrl } from './worksheet';
import { worksheetActions } from './worksheetActions';

export * from './workbench';

export type WorkbenchStore = ReturnType<typeof createWorkbench>;

/** What an edit changes before its trees are known. */
type Pending = Pick<
  WorkbenchState,
  'design' | 'revision' | 'selection' | 'undoSteps' | 'redoSteps' | 'save' | 'damage'
>;

/** How long an edit waits for its trees before it is shown without them. */
const PATIENCE_MS = 60;

/** Most trees drawn side by side. */
export const MAX_SHOWN = 6;

/** Opens a store over a design; `saver` is there for tests. */
export function createWorkbench(open: OpenDesign, solver: SolverClient, saverFor = serverSaver, calm?: number) {
  let watch: FindingsWatch | null = null;
  const store = createStore<Workbench>()((set, get) => {
    const page = freshName();
    /** The server's newest revision that this page has taken in, and the newest that it has heard of. */
    let acknowledged = open.damage?.head ?? open.revision;
    let heardOf = acknowledged;
    let letGo: () => void = () => undefined;
    let following = false;
    const saver = saverFor({
      post: (write) => api.write(open.id, write),
      report(save) {
        if (pending) pending = { ...pending, save };
        else set({ save });
        if (save.kind === 'saved') void followIfBehind();
      },
      follow,
      keep: (writes) => void keepWrites(open.id, page, writes),
      acknowledged: (revision) => (acknowledged = Math.max(acknowledged, revision)),
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

    async function showTrees(
      answer: Promise<SolverAnswer>,
      label: string | null,
      by: Moved['by'] = 'edit',
    ): Promise<void> {
      const ticket = (told += 1);
      const { design } = now();
      const network = compileNetwork(design); // while the worker solves
      const slow = setTimeout(() => ticket === told && showPending({}), PATIENCE_MS);
      const next = await answer.catch((): SolverAnswer => ({
        problem: 'The solver has stopped. Load the page again; nothing is lost.',
      }));
      clearTimeout(slow);
      if (stopped) return;
      if (!('problem' in next)) arrived = next.all ? unpackTrees(next.trees) : merged(arrived, unpackTrees(next.trees));
      if (ticket !== told) return; // a later change is already on its way
      if ('problem' in next) return showPending({ solution: null, problem: next.problem, moved: null });
      const solution: Solution = { network, trees: arrived };
      const before = present?.solution ?? get().solution;
      const moved =
        label !== null && before ? movedOf(label, movedEnds(before, solution), by, movedVlans(before, solution)) : null;
      const ids = solution.trees.map((tree) => tree.id);
      showPending({ solution, problem: null, moved, shownTrees: stillShown(get().shownTrees, design, ids) });
    }

    /** Puts a change into effect, as the next revision where it does not say which. */
    function take(
      design: Design,
      patches: readonly Patch[],
      label: string,
      steps: Pick<WorkbenchState, 'undoSteps' | 'redoSteps'> & Partial<Pending>,
      by: Moved['by'] = 'edit',
    ): void {
      pending = {
        design,
        revision: now().revision + 1,
        selection: stillThere(design, get().selection),
        save: now().save,
        damage: now().damage,
        ...steps,
      };
      void showTrees(solver.change(patches, design), label, by);
    }

    /** Takes in what others did to the design, with what this page has not sent on top. */
    async function follow({ renamed, dropped }: Overtaken): Promise<boolean> {
      const answer = await api.open(open.id);
      if (!answer.ok) {
        const gone = answer.error.status !== 0 && answer.error.status !== 401 && answer.error.status < 500;
        if (gone) saver.refuse('refused', answer.error);
        return gone;
      }
      const there = answer.value;
      acknowledged = there.damage?.head ?? there.revision;
      heardOf = Math.max(heardOf, acknowledged);
      const next = rebase(there, saver.unsent(), renamed);
      const last = there.undo.at(-1)?.label ?? `revision ${there.revision}`;
      if (!next.ok) {
        saver.refuse('conflict', {
          status: 409,
          message: next.error,
          details: [],
          revision: there.revision,
          since: [last],
        });
        return true;
      }
      const { design, revision, undoSteps, redoSteps, writes } = next.value;
      saver.replace(writes);
      take(design, replaceDesign(now().design, design).patches, `another window: ${last}`, {
        undoSteps,
        redoSteps,
        revision,
        damage: there.damage,
      });
      const lost = next.value.dropped + (dropped ? 1 : 0);
      if (lost > 0)
        set({
          advice: {
            text: 'Another window has changed the design in the meantime, so your last step back or forward was left out: look, then do it again.',
            remedy: null,
          },
        });
      return true;
    }

    /** Follows what other windows did, once nothing of this one is under way. */
    async function followIfBehind(): Promise<void> {
      if (following || heardOf <= acknowledged || saver.unsent().length > 0 || stopped) return;
      following = true;
      const before = acknowledged;
      const done = await follow({ renamed: new Map(), dropped: null });
      following = false;
      if (!done) return; // the next news asks again
      if (acknowledged > before) void followIfBehind();
      else heardOf = acknowledged; // what was heard of is not there: an older database was brought back
    }

    return {
      id: open.id,
      design: open.design,
      revision: open.revision,
      save: { kind: 'saved' },
      damage: open.damage,
      others: [],
      orphaned: [],
      findings: NO_FINDINGS,
      undoSteps: open.undo,
      redoSteps: open.redo,
      solution: null,
      problem: null,
      moved: null,
      shownTrees: [],
      selection: null,
      lens: 'Root',
      drawer: { tab: null, open: true },
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
        letGo = holdPage(page);
        watch = watchFindings(
          (of) => solver.findings(of.network.design),
          (next) => set({ findings: next(get().findings) }),
          calm,
        );
        watch.see(get().solution);
        void orphanedWrites(open.id).then((orphaned) => !stopped && set({ orphaned }));
        void showTrees(solver.open(now().design), null);
      },
      stop() {
        stopped = true;
        letGo();
        watch?.stop();
        watch = null;
        solver.close();
      },
      act(...commands) {
        if (present) return lookingBack(get());
        if (now().damage) return 'The newest revisions cannot be read: go on from the last good one first.';
        if (get().advice) set({ advice: null });
        const { design, revision, undoSteps } = now();
        const edited = editAll(design, commands);
        if (!edited.ok) return problemText(edited.error);
        const { patches, inverse } = edited.value;
        if (patches.length === 0) return null;
        const label = describeCommands(design, commands);
        take(edited.value.design, patches, label, {
          undoSteps: [...undoSteps, { number: revision + 1, label, patches, inverse }],
          redoSteps: [],
        });
        saver.send({ kind: 'edit', base: revision, commands });
        return null;
      },
      undo() {
        const { undoSteps, redoSteps, revision, design } = now();
        const step = undoSteps.at(-1);
        if (!step || present || now().damage) return;
        const steps = { undoSteps: undoSteps.slice(0, -1), redoSteps: [...redoSteps, step] };
        take(applyChange(design, step.inverse), step.inverse, `took back: ${step.label}`, steps, 'undo');
        saver.send({ kind: 'undo', base: revision, target: step.number });
      },
      redo() {
        const { undoSteps, redoSteps, revision, design } = now();
        const step = redoSteps.at(-1);
        if (!step || present || now().damage) return;
        take(applyChange(design, step.patches), step.patches, `did again: ${step.label}`, {
          undoSteps: [...undoSteps, step],
          redoSteps: redoSteps.slice(0, -1),
        });
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
      askFor: (list, trees) =>
        set({ wishes: { list, trees, asked: get().wishes.asked + 1 }, drawer: { tab: 'wishes', open: true } }),
      setBusy: (busy) => set({ busy }),
      setControls: (controls) => set({ controls }),
      setLayout: (layout) => set({ layout }),
      openDialog: (dialog) => set({ dialog }),
      look(view) {
        const { worksheet } = get();
        if (worksheet && !worksheet.marked) {
          if (view)
            return set({
              advice: {
                text: 'A worksheet is open: compare it, or put it aside, before you look at something else.',
                remedy: null,
              },
            });
          leaveWorksheetUrl();
          set({ worksheet: null });
        }
        if (pending) showPending({});
        if (present)
          set({ ...present, selection: stillThere(present.design ?? get().design, get().selection), viewing: null });
        present = null;
        if (view === null) return;
        const { design, revision, solution, problem, moved, shownTrees } = get();
        present = { design, revision, solution, problem, moved, shownTrees };
        const { label, revision: number, hidden, ...shown } = view;
        const trees = view.solution?.trees.map((tree) => tree.id) ?? [];
        set({
          ...shown,
          advice: null,
          viewing: { label, revision: number, ...(hidden ? { hidden } : {}) },
          problem: view.solution || hidden ? null : 'this revision cannot be solved',
          shownTrees: stillShown(shownTrees, view.design, trees),
          selection: stillThere(view.design, get().selection),
        });
      },
      ...worksheetActions(get, set, now),
      margin: (tree, sw, port) => (present ? Promise.resolve(null) : solver.margin(tree, sw, port)),
      restore(target, design) {
        get().look(null);
        const { design: from, revision, undoSteps } = now();
        const { patches, inverse } = replaceDesign(from, design);
        if (patches.length === 0) return `Revision ${target} is no other than the present one.`;
        const label = restoreLabel(target);
        take(design, patches, label, {
          undoSteps: [...undoSteps, { number: revision + 1, label, patches, inverse }],
          redoSteps: [],
        });
        saver.send({ kind: 'restore', base: revision, target });
        return null;
      },
      setLens(lens) {
        const { drawer, shownTrees, solution, design } = get();
        // A run may have trees that the design does not have now.
        set({
          lens,
          drawer: { ...drawer, tab: null },
          ...(solution
            ? {
                shownTrees: stillShown(
                  shownTrees,
                  design,
                  solution.trees.map((tree) => tree.id),
                ),
              }
            : {}),
        });
      },
      openDrawer: (tab) => set({ drawer: { tab, open: true } }),
      toggleDrawer: () => set({ drawer: { ...get().drawer, open: !get().drawer.open } }),
      showTree(tree, how) {
        const { shownTrees } = get();
        if (how === 'alone') set({ shownTrees: [tree] });
        else if (!shownTrees.includes(tree))
          set({ shownTrees: inOrder([...shownTrees, tree].slice(-MAX_SHOWN), get().solution) });
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
      readObserved: (text, seenOn) => solver.readObserved(text, seenOn),
      findAgain: () => watch?.again(),
      heard(others, revision) {
        if (others && JSON.stringify(others) !== JSON.stringify(get().others)) set({ others });
        heardOf = Math.max(heardOf, revision ?? 0);
        void followIfBehind();
      },
      mend() {
        const { damage } = now();
        if (damage) saver.send({ kind: 'restore', base: damage.good, target: damage.good });
      },
      async takeOrphaned(kept, how) {
        set({ orphaned: get().orphaned.filter(({ key }) => key !== kept.key) });
        const refused = how === 'send' ? await sendKept(open.id, kept) : null;
        if (refused !== null)
          return set({ orphaned: [...get().orphaned, kept], advice: { text: refused, remedy: null } });
        await forgetWrites(kept.key);
        if (how === 'send') await follow({ renamed: new Map(), dropped: null });
      },
      unsent: () => saver.unsent().length,
      abandon: () => saver.abandon(),
    };
  });
  store.subscribe(({ solution }) => watch?.see(solution));
  return store;
}

const lookingBack = ({ viewing }: Workbench): string =>
  viewing?.hidden
    ? 'A worksheet is open: compare it, or put it aside, before you change the design.'
    : `This is ${viewing?.label ?? 'an earlier revision'}, to look at only: go back to now, or restore it.`;

const serverSaver = (room: SaverRoom): Saver => createSaver(room);
