import fc from 'fast-check';
import { anyDesign, solutionOf } from '../core/testing/networks';
import { commandSchema } from '../core/edit/commands';
import { edit } from '../core/edit/edit';
import { fernhollow, valleyStation } from '../core/demo/demos';
import { viewTree } from '../core/tree/settled';
import { packTrees, unpackTrees } from './packing';
import type { SolverWorker } from './solver';
import { tries } from '../core/testing/runs';

let worker: SolverWorker;
jest.mock('comlink', () => ({ expose: (api: SolverWorker) => (worker = api), transfer: (value: unknown) => value }));

describe('packed trees', () => {
  it('come out as they went in, whatever the size of the network', () => {
    fc.assert(
      fc.property(anyDesign, (design) => {
        const { network, trees } = solutionOf(design);
        const unpacked = unpackTrees(packTrees(trees, network.switches.length, network.ports.length));
        expect(unpacked.map((tree) => viewTree(network, tree))).toEqual(trees.map((tree) => viewTree(network, tree)));
        expect(unpacked.map((tree) => [...tree.designated])).toEqual(trees.map((tree) => [...tree.designated]));
      }),
      { numRuns: tries(30) },
    );
  });
});

describe('the solver worker', () => {
  const patchesOf = (command: object) => {
    const edited = edit(fernhollow(), commandSchema.parse(command));
    if (!edited.ok) throw new Error(edited.error.path);
    return edited.value.patches;
  };

  it('answers with every tree first, and then with those that a change can have moved', async () => {
    await import('./solver');
    expect(worker.change([])).toEqual({ problem: 'The solver has no design yet.' });
    const first = worker.open(fernhollow());
    expect('trees' in first && [first.all, first.trees.ids.length]).toEqual([true, 7]);
    const second = worker.change(
      patchesOf({ do: 'set-bridge-priority', switch: 'ridge-a', tree: 'vlan:25', priority: 0 }),
    );
    expect('trees' in second && [second.all, second.trees.ids]).toEqual([false, ['vlan:25']]);
    const third = worker.change(patchesOf({ do: 'set-link', link: 'l1', up: false }));
    expect('trees' in third && [third.all, third.trees.ids.length]).toEqual([true, 7]);
  });

  it('hands over what MSTP adds to a tree', async () => {
    await import('./solver');
    const answer = worker.open(valleyStation());
    if (!('trees' in answer)) throw new Error(answer.problem);
    const { trees } = solutionOf(valleyStation());
    expect(unpackTrees(answer.trees)).toEqual(trees);
    expect(trees.map((tree) => tree.regional !== undefined)).toEqual([true, true, true]);
  });

  it('says what is wrong with a design that is none', async () => {
    await import('./solver');
    const { links, ...rest } = fernhollow();
    expect(worker.open({ ...rest, links: [...links, links[0]!] })).toEqual({
      problem: expect.stringContaining('each link once') as string,
    });
  });
});
