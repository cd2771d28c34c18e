/** What switches believe of the network, beside what it is. */
import fc from 'fast-check';
import { fernhollow, townOffice } from '../../demo/demos';
import { networkOf, randomDesign } from '../../testing/networks';
import { tries } from '../../testing/runs';
import { solve } from '../../tree/solve';
import { beliefTrees, beliefsOf, unknownTo } from './belief';
import { conversationsIn } from './heard';

const town = solve(townOffice());
const at = (name: string): number => town.network.switches.findIndex(({ id }) => id === name);

it('differs where BPDUs ride through strangers: a root hears itself where its cable leads to somebody', () => {
  const own = beliefsOf(town, at('hall-a')).find((belief) => beliefTrees(belief) === 'VLANs 15,25,35')!;
  expect(own).toMatchObject({ root: 'it is root itself', truth: null });
  expect(own.neighbours).toEqual([{ port: '3', believes: 'itself', truth: 'stairs-b' }]);
});

it('ends where a switch has no part, and where another island has a root of its own', () => {
  expect(beliefsOf(town, at('stairs-b'))).toEqual([
    {
      trees: ['vlan:1'],
      root: 'root stairs-a, at cost 20\u202f000 by port 2',
      truth: 'hall-a is root too, elsewhere',
      neighbours: [],
    },
  ]);
  expect(unknownTo(town, at('stairs-b'))).toEqual(['vlan:15', 'vlan:25', 'vlan:35']);
  expect(unknownTo(town, at('hall-a'))).toEqual([]);
});

it('is the truth in the demo, and about neighbours wherever all switches speak alike and hear each other', () => {
  const demo = solve(fernhollow());
  for (const s of demo.network.switches.keys())
    expect(beliefsOf(demo, s).flatMap(({ truth, neighbours }) => [truth ?? [], neighbours].flat())).toEqual([]);
  fc.assert(
    fc.property(
      randomDesign('standard').filter(({ switches }) => switches.every((sw) => sw.dialect !== 'off' && sw.up)),
      (design) => {
        const solution = solve(design);
        for (const s of solution.network.switches.keys())
          for (const { neighbours } of beliefsOf(solution, s)) expect(neighbours).toEqual([]);
      },
    ),
    { numRuns: tries(20) },
  );
});

describe('conversations', () => {
  it('begin with what comes back to its sender, then what rides through others', () => {
    const all = conversationsIn(town);
    expect(all[0]).toMatchObject({
      at: 'hall-a port 3',
      from: 'hall-a port 2',
      returns: true,
      riding: 'stairs-a, stairs-b',
      trees: 'VLANs 15,25,35',
    });
    const order = all.map(({ returns, through }) => (returns ? 0 : through === '' ? 2 : 1));
    expect(order).toEqual([...order].sort());
  });
  it('are one each way that a designated port speaks, between two switches', () => {
    const two = solve(networkOf({ a: { priority: 0 }, b: {} }, ['a 1 = b 1']));
    expect(conversationsIn(two).map(({ at: to, from, fate }) => [to, from, fate])).toEqual([
      ['b port 1', 'a port 1', 'read as the common tree'],
    ]);
  });
});
