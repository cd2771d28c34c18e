/**
 * The workbench's state: the document, what of it is looked at, what is selected and open. One store an open design.
 */
import { focused } from '../../core/analysis/focus/focus';
import { createStore } from 'zustand/vanilla';
import type { OpenDesign } from '../../contract/api';
import { createDocument } from './document';
import { foldedAtFirst, groupsOf, rememberFolds, rememberedFolds, unfoldedFor } from './folding';
import type { Design } from '../../core/model/document';
import type { Solution } from '../../core/tree/settled';
import { NOTHING_FOUND, watchBeside, type Watch } from './beside';
import { NOT_ASKED } from './failures';
import { forgetWrites, holdPage, orphanedWrites } from './kept';
import { atPresent, lookingText, PRESENT, shownOf, type Looking } from './looking';
import { createSaver, freshName, type Saver, type SaverRoom } from './saver';
import { stillThere, toggled, switchesOf } from './selection';
import { sendKept } from './sendKept';
import { inOrder, stillShown } from './shownTrees';
import type { SolverClient } from './solverClient';
import { judgedSince } from './verdicts';
import type { Workbench } from './workbench';
import { leaveWorksheetUrl } from './worksheet';
import { worksheetActions } from './worksheetActions';

export * from './workbench';

export type WorkbenchStore = ReturnType<typeof createWorkbench>;

/** Most trees drawn side by side. */
export const MAX_SHOWN = 6;

/** A design that is opened, to be changed or to be looked at alone. */
export type Opened = OpenDesign & { readonly readOnly?: boolean };

/** Opens a store over a design; `saver` is there for tests. */
export function createWorkbench(open: Opened, solver: SolverClient, saverFor = serverSaver, calm?: number) {
  let watch: Watch<Solution> | null = null;
  let judge: Watch<Design> | null = null;
  const store = createStore<Workbench>()((set, get) => {
    const page = freshName();
    let letGo: () => void = () => undefined;
    let stopped = false;
    const document = createDocument(open, solver, {
      page,
      saverFor,
      show: () => set(screenState(get().looking)),
      drawn: () => get().shownTrees,
      advise: (text) => set({ advice: { text, remedy: null } }),
    });

    /** Everything on the screen that follows from the document and from what is looked at. */
    function screenState(looking: Looking): Partial<Workbench> {
      const { save, damage, undoSteps, redoSteps } = document.now();
      const shown = shownOf(document.now(), looking);
      const { chosenTrees, shownTrees, selection } = get();
      const ids = shown.solution?.trees.map((tree) => tree.id);
      return {
        ...shown,
        ...{ looking, save, damage, undoSteps, redoSteps },
        selection: stillThere(shown.design, selection),
        shownTrees:
          looking.kind === 'worksheet'
            ? []
            : ids
              ? stillShown(chosenTrees, shown.design, ids, shownTrees)
              : chosenTrees,
      };
    }
    const lookAt = (looking: Looking): void => set(screenState(looking));
    const choose = (chosenTrees: Workbench['chosenTrees']): void => set({ chosenTrees, shownTrees: chosenTrees });
    /** Why nothing can be changed now; null where it can. */
    function refusal(): string | null {
      const { looking, readOnly } = get();
      if (readOnly) return 'This page is to look at only: the design is changed in the workbench.';
      if (looking.kind === 'worksheet') return 'A worksheet is open: compare or close it before you change the design.';
      if (looking.kind !== 'present')
        return `This is ${lookingText(looking)}, to look at only: go back to now, or restore it.`;
      return document.now().damage ? 'The newest revisions cannot be read: go on from the last good one first.' : null;
    }

    return {
      id: open.id,
      readOnly: open.readOnly ?? false,
      ...document.now(),
      looking: PRESENT,
      others: [],
      orphaned: [],
      findings: NOTHING_FOUND,
      verdicts: NOTHING_FOUND,
      failures: NOT_ASKED,
      runs: NOT_ASKED,
      runsWanted: false,
      pairsWanted: false,
      chosenTrees: [],
      shownTrees: [],
      selection: null,
      // Where nothing is yet, cabling comes first.
      lens: document.now().design.switches.length === 0 ? 'Cable' : document.now().design.exercise ? 'Prove' : 'Root',
      focus: null,
      folded: foldedAtFirst(document.now().design),
      inspector: true,
      drawer: { tab: document.now().design.exercise ? 'exercise' : null, open: true },
      layout: 'placed',
      marked: null,
      rides: null,
      tour: null,
      dialog: null,
      sight: null,
      advice: null,
      wishes: { list: [], trees: null, asked: 0 },
      controls: null,
      clocks: new Map(),

      start() {
        stopped = false;
        const folded = rememberedFolds(open.id);
        if (folded) set({ folded });
        if (!get().readOnly) letGo = holdPage(page);
        watch = watchBeside(
          (of) => solver.findings(of.network.design),
          (next) => set({ findings: next(get().findings) }),
          calm,
        );
        watch.see(get().solution);
        judge = watchBeside(
          async () => judgedSince(get().verdicts.list, await solver.verdicts(), get().moved?.label ?? null),
          (next) => set({ verdicts: next(get().verdicts) }),
          0,
        );
        // What was not sent is for a page that may send.
        if (!get().readOnly) void orphanedWrites(open.id).then((orphaned) => !stopped && set({ orphaned }));
        document.start();
      },
      stop() {
        stopped = true;
        letGo();
        watch?.stop();
        watch = null;
        judge?.stop();
        judge = null;
        document.stop();
        solver.close();
      },
      act(...commands) {
        const refused = refusal();
        if (refused !== null) return refused;
        if (get().advice) set({ advice: null });
        return document.edit(commands);
      },
      undo: () => refusal() === null && document.undo(),
      redo: () => refusal() === null && document.redo(),
      restore(target, design) {
        get().look(null);
        return document.restore(target, design);
      },
      select: (selection) => set({ selection }),
      pick: (item, how) => get().select(how === 'more' ? toggled(get().selection, item) : item),
      goTo(item) {
        get().select(item);
        // What is found may be out of focus: then all is shown again.
        const { focus, design, solution, shownTrees, folded } = get();
        const seen = focus && new Set(focused(design, focus, solution, shownTrees));
        const shown = !seen || switchesOf(design, item).every((id) => seen.has(id));
        // So may it be in a folded group.
        const unfolded = unfoldedFor(design, folded, switchesOf(design, item));
        if (unfolded !== folded) rememberFolds(open.id, unfolded);
        set({ sight: { item }, folded: unfolded, ...(shown ? {} : { focus: null }) });
      },
      advise: (advice) => set({ advice }),
      wish: (list, trees = null) => set({ wishes: { list, trees, asked: 0 } }),
      askFor: (list, trees) =>
        set({ wishes: { list, trees, asked: get().wishes.asked + 1 }, drawer: { tab: 'wishes', open: true } }),
      setControls: (controls) => set({ controls }),
      setLayout: (layout) => set({ layout }),
      setFocus: (focus) => set({ focus }),
      fold(groups, how) {
        const folded = new Set(get().folded);
        for (const id of groups) {
          if (how === 'fold') folded.add(id);
          else folded.delete(id);
        }
        rememberFolds(open.id, folded);
        const [only, ...more] = groups;
        const opened =
          how === 'unfold' && more.length === 0 && groupsOf(get().design).find(({ group }) => group.id === only);
        set({ folded, ...(opened ? { sight: { switches: opened.switches } } : {}) });
        // What comes into view by itself is the whole again.
        if (!opened) get().controls?.whole();
      },
      setTour: (tour) => set({ tour }),
      openDialog: (dialog) => set({ dialog }),
      look(view) {
        if (view === null) {
          if (get().looking.kind === 'worksheet') leaveWorksheetUrl();
          return lookAt(PRESENT);
        }
        if (get().looking.kind === 'worksheet')
          return get().advise({
            text: 'A worksheet is open: compare or close it before you look at something else.',
            remedy: null,
          });
        set({ ...screenState(view), advice: null });
      },
      ...worksheetActions(get, set, lookAt, document),
      margin: (tree, sw, port) => (atPresent(get()) ? solver.margin(tree, sw, port) : Promise.resolve(null)),
      setLens(lens) {
        const { drawer, solution, design, chosenTrees } = get();
        set({ lens, drawer: { ...drawer, tab: null } });
        // A run may have trees that the design does not have now.
        if (solution) {
          const ids = solution.trees.map((tree) => tree.id);
          set({ shownTrees: stillShown(chosenTrees, design, ids) });
        }
      },
      openDrawer: (tab) => set({ drawer: { tab, open: true } }),
      toggleInspector: () => set({ inspector: !get().inspector }),
      toggleDrawer: () => set({ drawer: { ...get().drawer, open: !get().drawer.open } }),
      showTree(tree, how) {
        const { shownTrees } = get();
        if (how === 'alone') choose([tree]);
        else if (!shownTrees.includes(tree)) choose(inOrder([...shownTrees, tree].slice(-MAX_SHOWN), get().solution));
        else if (shownTrees.length > 1) choose(shownTrees.filter((shown) => shown !== tree));
      },
      stepTree(by) {
        const { solution, shownTrees } = get();
        if (!solution || solution.trees.length === 0) return;
        const ids = solution.trees.map((tree) => tree.id);
        const at = shownTrees[0] ? ids.indexOf(shownTrees[0]) : 0;
        choose([ids[(at + by + ids.length) % ids.length]!]);
      },
      mark: (moved) => document.mark(moved),
      forgetMoved() {
        const { looking } = get();
        if (looking.kind === 'present') document.mark(null);
        else if (looking.kind !== 'worksheet') lookAt({ ...looking, moved: null });
        set({ advice: null });
      },
      readObserved: (text, seenOn) => solver.readObserved(text, seenOn),
      findAgain: () => watch?.again(),
      heard(others, revision) {
        if (others && JSON.stringify(others) !== JSON.stringify(get().others)) set({ others });
        document.heard(revision ?? 0);
      },
      mend: () => document.mend(),
      async takeOrphaned(kept, how) {
        set({ orphaned: get().orphaned.filter(({ key }) => key !== kept.key) });
        const refused = how === 'send' ? await sendKept(open.id, kept) : null;
        if (refused !== null)
          return set({ orphaned: [...get().orphaned, kept], advice: { text: refused, remedy: null } });
        await forgetWrites(kept.key);
        if (how === 'send') await document.follow();
      },
      newest: () => document.now().design,
      unsent: () => document.unsent(),
      hurry: () => document.hurry(),
      abandon: () => document.abandon(),
    };
  });
  store.subscribe(({ design, solution, partly, looking }) => {
    if (partly) return;
    watch?.see(solution);
    if (looking.kind === 'present') judge?.see(solution && design);
  });
  return store;
}

const serverSaver = (room: SaverRoom): Saver => createSaver(room);
