/**
 * The one present design: an edit takes effect here at once, the solver's worker answers, and the queue of writes follows to
 * the server.
 */
import { restoreLabel, type Damage, type OpenDesign, type Step } from '../../contract/api';
import type { Command } from '../../core/edit/commands';
import { describeCommands } from '../../core/edit/describe';
import { applyChange, editAll, replaceDesign, type Patch } from '../../core/edit/edit';
import type { Design } from '../../core/model/document';
import { problemText } from '../../core/model/problem';
import type { TreeId } from '../../core/model/ids';
import { compileNetwork } from '../../core/topology/network';
import { movedEnds, movedVlans } from '../../core/tree/moved';
import { mayHaveMoved, resolve } from '../../core/tree/resolve';
import type { SettledTree, Solution } from '../../core/tree/settled';
import { unpackTrees } from '../../workers/packing';
import type { SolverAnswer } from '../../workers/solver';
import { api } from './api';
import { keepWrites } from './kept';
import { movedOf, type Moved } from './moved';
import { rebase } from './rebase';
import type { Overtaken, Saver, SaverRoom, SaveState } from './saver';
import { merged } from './shownTrees';
import type { SolverClient } from './solverClient';

/** The design as it is, what the solver said of it last, and how far it is saved. */
export interface Present {
  readonly design: Design;
  /** The revision that the design is, or will be once saved. */
  readonly revision: number;
  readonly save: SaveState;
  /** Set where the newest revisions cannot be read: nothing can be changed until work goes on from the last good one. */
  readonly damage: Damage | null;
  readonly undoSteps: readonly Step[];
  readonly redoSteps: readonly Step[];
  readonly solution: Solution | null;
  /** The trees that are drawn are known, the others stand as they were before the last change: a moment, until the worker answers. */
  readonly partly: boolean;
  /** Why there is no solution, where the solver cannot give one. */
  readonly problem: string | null;
  readonly moved: Moved | null;
}

export interface DesignDocument {
  /** The design as it is now, whether the screen shows it yet or not. */
  now(): Present;
  start(): void;
  /** Answers of the solver count no more; `start` begins anew. */
  stop(): void;
  /** The page is about to go: what waits for more is sent. */
  hurry(): void;
  /** Applies commands as one step. Gives null, or a sentence that says why nothing was changed. */
  edit(commands: readonly Command[]): string | null;
  undo(): void;
  redo(): void;
  /** Makes an earlier revision the newest one. Gives null, or why not. */
  restore(target: number, design: Design): string | null;
  /** Goes on from the last good revision where later ones cannot be read. */
  mend(): void;
  /** Hears what the newest revision on the server is, and follows where it is another window's. */
  heard(revision: number): void;
  /** Takes in what is on the server, with what was not sent on top. */
  follow(): Promise<unknown>;
  /** Marks ends as moved, or none. */
  mark(moved: Moved | null): void;
  /** How many changes the server has not taken yet. */
  unsent(): number;
  /** Gives up on what is not saved. */
  abandon(): void;
}

/** How long an edit waits for its trees before it is shown without them. */
const PATIENCE_MS = 60;

/** Ports times trees that the page solves itself: that takes no longer than to hear of it from the worker. */
const SOLVED_HERE = 8000;

const DROPPED =
  'Another window has changed the design in the meantime, so your last step back or forward was left out: look, then do it again.';

interface Room {
  /** The page's name beside other windows'. */
  readonly page: string;
  saverFor(room: SaverRoom): Saver;
  /** Told when there is something new to show. The map is drawn once an edit, and never with trees of another design. */
  show(): void;
  /** The trees that are drawn. */
  drawn(): readonly TreeId[];
  advise(text: string): void;
}

type Steps = Pick<Present, 'undoSteps' | 'redoSteps'>;

export function createDocument(open: OpenDesign, solver: SolverClient, room: Room): DesignDocument {
  let present: Present = {
    design: open.design,
    revision: open.revision,
    save: { kind: 'saved' },
    damage: open.damage,
    undoSteps: open.undo,
    redoSteps: open.redo,
    solution: null,
    partly: false,
    problem: null,
    moved: null,
  };
  /** The last solution of which every tree was known. */
  let whole: Solution | null = null;
  /** An edit waits for its trees. */
  let waiting = false;
  /** Counts the questions to the solver: only the answer to the last one is shown. */
  let asked = 0;
  let stopped = false;
  /** Trees as they came, until the answer to the last change is in: an answer holds only what its change moved. */
  let arrived: readonly SettledTree[] = [];
  /** Moves on the map that are not sent yet: what they began with, and the revision that all of them will be. */
  let tidying: { readonly from: Design; readonly revision: number; readonly commands: readonly Command[] } | null =
    null;
  /** The server's newest revision that this page has taken in, and the newest that it has heard of. */
  let acknowledged = open.damage?.head ?? open.revision;
  let heardOf = acknowledged;
  let following = false;

  function put(part: Partial<Present>): void {
    present = { ...present, ...part };
    waiting = false;
    room.show();
  }

  const saver = room.saverFor({
    post: (write) => api.write(open.id, write),
    report(save) {
      if (waiting) present = { ...present, save };
      else put({ save });
      if (save.kind === 'saved') void followIfBehind();
    },
    follow,
    keep: (writes) => void keepWrites(open.id, room.page, writes),
    acknowledged: (revision) => (acknowledged = Math.max(acknowledged, revision)),
  });

  async function showTrees(
    answer: Promise<SolverAnswer>,
    label: string | null,
    by: Moved['by'] = 'edit',
  ): Promise<void> {
    const ticket = (asked += 1);
    const here = solvedHere();
    if (here) {
      await Promise.resolve(); // what begins with the change belongs to the same picture
      if (!stopped && ticket === asked) settled(here.solution, here.partly, label, by);
    }
    const network = here?.solution.network ?? compileNetwork(present.design); // while the worker solves
    const slow = here ? undefined : setTimeout(() => ticket === asked && put({}), PATIENCE_MS);
    const next = await answer.catch((): SolverAnswer => ({
      problem: 'The solver has stopped. Load the page again; nothing is lost.',
    }));
    clearTimeout(slow);
    if (stopped) return;
    if (!('problem' in next)) arrived = next.all ? unpackTrees(next.trees) : merged(arrived, unpackTrees(next.trees));
    if (ticket !== asked) return; // a later change is already on its way
    if ('problem' in next) {
      whole = null;
      return put({ solution: null, partly: false, problem: next.problem, moved: null });
    }
    // What is drawn already stays as it is.
    if (here) arrived = here.partly ? merged(arrived, here.known) : here.solution.trees;
    if (!here || here.partly) settled({ network, trees: arrived }, false, label, by);
  }

  /**
   * The solution of the present design, where a change has moved little since the last one; where it has moved more, that of the
   * trees that are drawn, beside the others as they were; null where the worker has to find out who hears whom.
   */
  function solvedHere(): { solution: Solution; known: readonly SettledTree[]; partly: boolean } | null {
    if (!whole) return null;
    const { trees, wiring } = mayHaveMoved(whole, present.design);
    if (wiring) return null;
    const ids = whole.trees.flatMap(({ id }) => (trees === 'all' || trees.has(id) ? id : []));
    const most = SOLVED_HERE / whole.network.ports.length;
    const drawn = new Set(room.drawn());
    const here = ids.length <= most ? ids : ids.filter((id) => drawn.has(id));
    if (here.length === 0 ? ids.length > 0 : here.length > most) return null;
    const { solution, changed } = resolve(whole, present.design, here);
    return { solution, known: changed, partly: here.length < ids.length };
  }

  function settled(solution: Solution, partly: boolean, label: string | null, by: Moved['by']): void {
    const before = whole;
    const moved =
      label !== null && before ? movedOf(label, movedEnds(before, solution), by, movedVlans(before, solution)) : null;
    if (!partly) whole = solution;
    put({ solution, partly, problem: null, moved });
  }

  /** Puts a change into effect, as the next revision where it does not say which. */
  function take(
    design: Design,
    patches: readonly Patch[],
    label: string | null,
    rest: Steps & Partial<Pick<Present, 'revision' | 'damage'>>,
    by: Moved['by'] = 'edit',
  ): void {
    present = { ...present, design, revision: present.revision + 1, ...rest };
    waiting = true;
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
      const failure = { status: 409, message: next.error, details: [], revision: there.revision, since: [last] };
      saver.refuse('conflict', failure);
      return true;
    }
    const { design, revision, undoSteps, redoSteps, writes } = next.value;
    tidying = null;
    saver.replace(writes);
    const { patches } = replaceDesign(present.design, design);
    take(design, patches, `another window: ${last}`, { undoSteps, redoSteps, revision, damage: there.damage });
    if (dropped || next.value.dropped > 0) room.advise(DROPPED);
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

  /** The change as a step that can be taken back. */
  const stepped = (label: string, patches: Patch[], inverse: Patch[]): Steps => ({
    undoSteps: [...present.undoSteps, { number: present.revision + 1, label, patches, inverse }],
    redoSteps: [],
  });

  /** Adds moves to those that are not sent yet: a whole tidying-up is one revision, and one step back. */
  function moreMoves(moves: readonly Command[]): boolean {
    if (!tidying || tidying.revision !== present.revision) return false;
    const commands = [...tidying.commands, ...moves];
    const edited = editAll(tidying.from, commands);
    if (!edited.ok || !saver.amend({ kind: 'edit', base: present.revision - 1, commands })) return false;
    const { design, patches, inverse } = edited.value;
    const label = describeCommands(tidying.from, commands);
    const step = { number: present.revision, label, patches, inverse };
    const steps = { undoSteps: [...present.undoSteps.slice(0, -1), step], redoSteps: [] };
    take(design, replaceDesign(present.design, design).patches, null, { ...steps, revision: present.revision });
    tidying = { ...tidying, commands };
    return true;
  }

  return {
    now: () => present,
    start() {
      stopped = false;
      void showTrees(solver.open(present.design), null);
    },
    stop: () => void (stopped = true),
    hurry: () => saver.hurry(),
    edit(commands) {
      const { design, revision } = present;
      const quiet = commands.every((command) => command.do === 'move-switches');
      if (quiet && moreMoves(commands)) return null;
      const edited = editAll(design, commands);
      if (!edited.ok) return problemText(edited.error);
      const { patches, inverse } = edited.value;
      if (patches.length === 0) return null;
      const label = describeCommands(design, commands);
      take(edited.value.design, patches, quiet ? null : label, stepped(label, patches, inverse));
      const write = { kind: 'edit' as const, base: revision, commands: [...commands] };
      if (quiet) saver.hold(write);
      else saver.send(write);
      tidying = quiet ? { from: design, revision: revision + 1, commands } : null;
      return null;
    },
    undo() {
      const { undoSteps, redoSteps, revision, design } = present;
      const step = undoSteps.at(-1);
      if (!step) return;
      const steps = { undoSteps: undoSteps.slice(0, -1), redoSteps: [...redoSteps, step] };
      take(applyChange(design, step.inverse), step.inverse, `undid: ${step.label}`, steps, 'undo');
      saver.send({ kind: 'undo', base: revision, target: step.number });
    },
    redo() {
      const { undoSteps, redoSteps, revision, design } = present;
      const step = redoSteps.at(-1);
      if (!step) return;
      const steps = { undoSteps: [...undoSteps, step], redoSteps: redoSteps.slice(0, -1) };
      take(applyChange(design, step.patches), step.patches, `redid: ${step.label}`, steps);
      saver.send({ kind: 'redo', base: revision, target: step.number });
    },
    restore(target, design) {
      const { patches, inverse } = replaceDesign(present.design, design);
      if (patches.length === 0) return `Revision ${target} is the same as the present one.`;
      const { revision } = present;
      const label = restoreLabel(target);
      take(design, patches, label, stepped(label, patches, inverse));
      saver.send({ kind: 'restore', base: revision, target });
      return null;
    },
    mend() {
      const { damage } = present;
      if (damage) saver.send({ kind: 'restore', base: damage.good, target: damage.good });
    },
    heard(revision) {
      heardOf = Math.max(heardOf, revision);
      void followIfBehind();
    },
    follow: () => follow({ renamed: new Map(), dropped: null }),
    mark: (moved) => put({ moved }),
    unsent: () => saver.unsent().length,
    abandon: () => saver.abandon(),
  };
}
