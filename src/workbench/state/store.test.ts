import type { OpenDesign, Write } from '../../contract/api';
import { commandSchema, type Command } from '../../core/edit/commands';
import { editAll } from '../../core/edit/edit';
import { fail, ok } from '../../core/base/result';
import { api } from './api';
import { fernhollow } from '../../core/demo/demos';
import { vlanTree } from '../../core/model/ids';
import { treeOf } from '../../core/tree/settled';
import { solve } from '../../core/tree/solve';
import type { SolverAnswer } from '../../workers/solver';
import { networkOf } from '../../core/testing/networks';
import { inlineSolver, noSaver } from '../testing';
import type { Saver } from './saver';
import type { SolverClient } from './solverClient';
import { createWorkbench, type WorkbenchStore } from './store';

const command = (input: object): Command => commandSchema.parse(input);
const priority = (value: number) =>
  command({ do: 'set-bridge-priority', switch: 'ridge-a', tree: 'vlan:15', priority: value });

/** Who hears whom is another then, which the page leaves to the solver. */
const cut = (link: string) => command({ do: 'set-link', link, up: false });

/** The real solver, in this thread; where it is held back, it answers when `release` says so. */
function testSolver(held = false) {
  const solver = inlineSolver();
  const waiting: (() => void)[] = [];
  const later = (answer: Promise<SolverAnswer>) =>
    held ? new Promise<SolverAnswer>((done) => waiting.push(() => done(answer))) : answer;
  const client: SolverClient = {
    ...solver,
    open: (design) => later(solver.open(design)),
    change: (patches, design) => later(solver.change(patches, design)),
  };
  return { client, release: () => waiting.splice(0).forEach((go) => go()) };
}

const settle = () => new Promise((done) => setTimeout(done, 0));

let sent: Write[];
let store: WorkbenchStore;
const state = () => store.getState();
function open(held = false) {
  sent = [];
  const solver = testSolver(held);
  const saver = (): Saver => ({ ...noSaver(), send: (write: Write) => void sent.push(write), unsent: () => sent });
  store = createWorkbench(
    { id: 'x', revision: 7, design: fernhollow(), undo: [], redo: [], damage: null },
    solver.client,
    saver,
  );
  state().start();
  return solver;
}

describe('the workbench', () => {
  beforeEach(async () => {
    open();
    await settle();
  });

  it('opens with the first named VLAN shown and solved', () => {
    expect(state().shownTrees).toEqual(['vlan:15']);
    expect(state().solution?.trees).toHaveLength(7);
  });

  it('makes an edit the next revision, with what it moved', async () => {
    expect(state().act(priority(4096))).toBeNull();
    await settle();
    expect(state()).toMatchObject({ revision: 8, moved: { label: 'priority of ridge-a in VLAN 15: 32768 to 4096' } });
    expect(state().moved?.ends).toHaveLength(10);
    expect(sent).toMatchObject([{ kind: 'edit', base: 7, commands: [{ do: 'set-bridge-priority' }] }]);
  });

  it('makes several moves on the map one revision without a word, and one step back', async () => {
    const before = state().design;
    const held: Write[] = [];
    store = createWorkbench(
      { id: 'x', revision: 7, design: before, undo: [], redo: [], damage: null },
      testSolver().client,
      () => ({
        ...noSaver(),
        hold: (write) => void held.push(write),
        amend: (write) => held.splice(0, 1, write).length > 0,
      }),
    );
    state().start();
    const moveTo = (x: number) => ({
      do: 'move-switches' as const,
      to: [{ switch: before.switches[0]!.id, position: { x, y: 0 } }],
    });
    for (const x of [10, 20, 30]) expect(state().act(moveTo(x))).toBeNull();
    await settle();
    expect(state()).toMatchObject({ revision: 8, moved: null });
    expect(state().undoSteps).toHaveLength(1);
    expect(held).toMatchObject([{ kind: 'edit', base: 7, commands: [moveTo(10), moveTo(20), moveTo(30)] }]);
    state().undo();
    await settle();
    expect(state().design).toEqual(before);
  });

  it('takes back and does again, ending where it began', async () => {
    const before = state().design;
    state().act(priority(4096));
    state().act(priority(8192));
    state().undo();
    state().undo();
    await settle();
    expect(state().design).toEqual(before);
    state().redo();
    await settle();
    expect(state().design.switches[0]?.trees[vlanTree(15)]?.priority).toBe(4096);
    expect(sent.map((write) => [write.kind, write.base, 'target' in write && write.target])).toEqual([
      ['edit', 7, false],
      ['edit', 8, false],
      ['undo', 9, 9],
      ['undo', 10, 8],
      ['redo', 11, 8],
    ]);
  });

  it('forgets what could be done again after a new edit', async () => {
    state().act(priority(4096));
    state().undo();
    state().act(priority(0));
    await settle();
    expect(state()).toMatchObject({ redoSteps: [], revision: 10 });
  });

  it('refuses what does not fit in words, and sends nothing where nothing changed', () => {
    expect(state().act(command({ do: 'set-link', link: 'none', up: false }))).toContain('link none');
    expect(state().act(command({ do: 'set-link', link: 'l1', up: true }))).toBeNull();
    expect(sent).toEqual([]);
  });

  it('lets go of a selection that is no longer there', async () => {
    state().select({ kind: 'link', link: state().design.links[0]!.id });
    state().act(command({ do: 'remove-switch', switch: 'ridge-b' }));
    await settle();
    expect(state().selection).toBeNull();
  });

  it('follows a switch into another dialect, whose trees are others', async () => {
    state().act(command({ do: 'set-switch', switch: 'lodge', dialect: 'mstp' }));
    await settle();
    expect(state().solution?.trees.map((tree) => tree.id)).toEqual([
      'mst:0',
      ...[15, 25, 35, 45, 55, 65].map((vid) => `vlan:${vid}`),
    ]);
    expect(state().solution?.trees[0]?.regional?.root).toHaveLength(8);
    state().undo();
    await settle();
    expect(state().solution?.trees[0]).toMatchObject({ id: 'vlan:1' });
    expect(state().shownTrees).toEqual(['vlan:15']);
  });

  it('steps through trees in a ring and never shows none', () => {
    state().stepTree(-1);
    expect(state().shownTrees).toEqual(['vlan:1']);
    state().stepTree(-1);
    expect(state().shownTrees).toEqual(['vlan:65']);
    state().showTree(vlanTree(65), 'toggle');
    expect(state().shownTrees).toEqual(['vlan:65']);
    for (const vid of [1, 15, 25, 35, 45, 55]) state().showTree(vlanTree(vid), 'toggle');
    expect(state().shownTrees).toHaveLength(6);
  });
});

describe('while the solver is busy', () => {
  it('an edit waits a little for its trees, and is shown without them if they take long', async () => {
    jest.useFakeTimers();
    const solver = open(true);
    solver.release();
    await jest.advanceTimersByTimeAsync(1);
    state().act(cut('l1'));
    await jest.advanceTimersByTimeAsync(40);
    expect(state().revision).toBe(7);
    await jest.advanceTimersByTimeAsync(40);
    expect(state().revision).toBe(8);
    solver.release();
    await jest.advanceTimersByTimeAsync(1);
    expect(state().moved?.ends).toHaveLength(14); // both in each tree
    jest.useRealTimers();
  });

  it('several edits are shown once, with the trees of the last', async () => {
    const solver = open(true);
    solver.release();
    await settle();
    const seen: number[] = [];
    store.subscribe(
      (next, before) => next.design !== before.design && seen.push(next.design.links.filter(({ up }) => !up).length),
    );
    for (const link of ['l1', 'l2', 'l3']) state().act(cut(link));
    solver.release();
    await settle();
    expect(seen).toEqual([3]);
    expect(state().solution?.network.design).toBe(state().design);
  });

  it('shows at once what moves few trees, and what the solver says later is the same', async () => {
    const solver = open(true);
    solver.release();
    await settle();
    const before = state().solution!;
    state().act(priority(61440));
    await settle();
    const shown = state().solution!;
    expect([state().revision, shown.network.design === state().design]).toEqual([8, true]);
    expect(state().moved?.label).toContain('ridge-a');
    expect(shown.trees.filter((tree, i) => tree !== before.trees[i]).map(({ id }) => id)).toEqual(['vlan:15']);
    solver.release();
    await settle();
    expect(state().solution).toBe(shown);
    // One that the solver has to be asked about, with one after it that it need not be.
    state().act(cut('l1'));
    state().act(priority(4096));
    await settle();
    expect(state().revision).toBe(8);
    solver.release();
    await settle();
    expect(state().revision).toBe(10);
    expect(state().solution!.trees).toEqual(solve(state().design).trees);
  });
});

/** Switches in a ring, a tree a VLAN. */
const ring = (count: number, vlans: number) =>
  networkOf(
    Object.fromEntries(Array.from({ length: count }, (_, i) => [`s${i}`, { dialect: 'per-vlan-rstp' }])),
    Array.from({ length: count }, (_, i) => `s${i} 1 = s${(i + 1) % count} 2`),
    {},
    { vlans: Array.from({ length: vlans }, (_, i) => ({ id: i + 2 })) },
  );

describe('in a large network', () => {
  it('shows the drawn trees at once and the others when the solver answers; who follows waits for all of them', async () => {
    const design = ring(60, 80);
    const solver = testSolver(true);
    store = createWorkbench({ id: 'x', revision: 7, design, undo: [], redo: [], damage: null }, solver.client, () =>
      noSaver(),
    );
    state().start();
    solver.release();
    await settle();
    state().showTree(vlanTree(5), 'alone');
    const before = state().solution!;
    const far = design.switches[20]!;
    const edit = command({ do: 'set-bridge-priority', switch: far.id, tree: null, priority: 0 });
    state().act(edit);
    await settle();
    const after = solve(state().design);
    const shown = state();
    expect([shown.partly, shown.solution!.network.design === shown.design]).toEqual([true, true]);
    for (const [i, tree] of shown.solution!.trees.entries())
      if (tree.id === vlanTree(5)) expect(tree).toEqual(after.trees[i]);
      else expect(tree).toBe(before.trees[i]);
    solver.release();
    await settle();
    expect(state().partly).toBe(false);
    expect(state().solution!.trees).toEqual(after.trees);
    expect(treeOf(state().solution!, vlanTree(5))).toBe(treeOf(shown.solution!, vlanTree(5))); // not drawn twice
    expect(new Set(state().moved!.ends.map(({ tree }) => tree)).size).toBeGreaterThan(1);
  });
});

describe('what other windows do', () => {
  const there = (revision: number, value: number): OpenDesign => {
    const edited = editAll(fernhollow(), [priority(value)]);
    if (!edited.ok) throw new Error();
    return {
      id: 'x',
      revision,
      design: edited.value.design,
      damage: null,
      redo: [],
      undo: [
        { number: revision, label: `priority ${value}`, patches: edited.value.patches, inverse: edited.value.inverse },
      ],
    };
  };
  let asked: jest.SpyInstance;
  beforeEach(async () => {
    open();
    await settle();
    asked = jest.spyOn(api, 'open');
  });
  afterEach(() => asked.mockRestore());

  it('is followed when it is heard of, once, with what it moved and its step to take back', async () => {
    asked.mockResolvedValue(ok(there(9, 4096)));
    state().heard(null, 9);
    state().heard(null, 8);
    await settle();
    await settle();
    expect(asked).toHaveBeenCalledTimes(1);
    expect(state()).toMatchObject({
      revision: 9,
      moved: { label: 'another window: priority 4096' },
      undoSteps: [{ number: 9 }],
    });
  });

  it('is followed again where more came while it was asked for, or where there was no answer', async () => {
    asked
      .mockResolvedValueOnce(fail({ status: 0, message: 'gone', details: [] }))
      .mockImplementationOnce(() => {
        state().heard(null, 10);
        return Promise.resolve(ok(there(9, 4096)));
      })
      .mockResolvedValue(ok(there(10, 8192)));
    state().heard(null, 9);
    await settle();
    expect(state().revision).toBe(7);
    state().heard(null, 9);
    for (let n = 0; n < 4; n += 1) await settle();
    expect(asked).toHaveBeenCalledTimes(3);
    expect(state().revision).toBe(10);
  });

  it('waits while something of this window is under way, and is no news where this window did it', async () => {
    state().act(priority(0));
    state().heard(null, 8);
    await settle();
    expect(asked).not.toHaveBeenCalled();
    state().heard([{ window: 'w', name: 'B', lens: 'Steer', at: null }], null);
    expect(state().others).toHaveLength(1);
  });
});

describe('a design whose newest revisions cannot be read', () => {
  it('is looked at, and not changed before work goes on from the last good one', async () => {
    const sentNow: Write[] = [];
    const own = createWorkbench(
      { id: 'x', revision: 3, design: fernhollow(), undo: [], redo: [], damage: { good: 3, head: 5, why: 'x' } },
      inlineSolver(),
      () => ({ ...noSaver(), send: (write) => void sentNow.push(write) }),
    );
    own.getState().start();
    await settle();
    expect(own.getState().act(priority(0))).toContain('go on from the last good one first');
    own.getState().undo();
    own.getState().mend();
    expect(sentNow).toEqual([{ kind: 'restore', base: 3, target: 3 }]);
  });
});
