/** Bridges that are told to speak otherwise while the network runs: it comes to rest where the solver has the new design. */
import { actionKind } from '../model/actions/actions';
import fc from 'fast-check';
import { valleyStation } from '../demo/demos';
import { vlanTree, type LinkId, type RegionId, type SwitchId } from '../model/ids';
import { DEFAULT_TALK, type Action } from '../model/scenario';
import { editAll } from '../edit/edit';
import { SECOND } from '../modes/entity';
import { regionsDesign } from '../testing/networks';
import { unlike } from '../testing/settling';
import { compileNetwork } from '../topology/network';
import { traceOf, Player } from './trace/trace';
import { readScenario, commandsOf, treesThrough } from './scenario/scenario';
import { simulate } from './simulate';
import { Simulation } from './engine/simulation';
import { tries } from '../testing/runs';

const REST = 120 * SECOND;
// Switches that turn into none but flood would keep their neighbours at what a classic bridge had them fall back to.
const OTHERWISE = ['r0', 'r0', 'r1', 'rstp', 'stp', 'per-vlan-rstp'] as const;

it('in random networks that go over to MSTP, from it, or to another region, one bridge after the other', () => {
  const turn = fc.record({ at: fc.nat(), to: fc.constantFrom(...OTHERWISE) });
  fc.assert(
    fc.property(
      regionsDesign(5, ['r0', 'r0', 'r1', 'rstp', 'stp', 'per-vlan-rstp']),
      fc.nat(),
      fc.array(turn, { minLength: 1, maxLength: 4 }),
      (design, seed, turns) => {
        const actions = turns.map(({ at, to }, i) => ({
          at: i,
          do: 'speak' as const,
          switch: design.switches[at % design.switches.length]!.id,
          ...(/^r\d/.test(to) ? { dialect: 'mstp' as const, region: to as RegionId } : { dialect: to as 'rstp' }),
        }));
        const sim = new Simulation(compileNetwork(design), treesThrough(design, actions), seed);
        sim.boot();
        sim.runTo(REST);
        let now = design;
        for (const action of actions) {
          const edited = editAll(now, commandsOf(actionKind(action).happens(action).changes));
          if (!edited.ok) throw new Error(edited.error.found);
          now = edited.value.design;
          sim.follow(now);
          sim.runTo(sim.now + REST);
          expect(unlike(sim, now)).toEqual([]);
        }
      },
    ),
    { numRuns: tries(20) },
  );
});

const speak = (at: number, sw: string, region = 'valley'): Action => ({
  at,
  do: 'speak',
  switch: sw as SwitchId,
  dialect: 'mstp',
  region: region as RegionId,
});

it('is played back with the trees that each switch has at the time', () => {
  const actions = [speak(5, 'gatehouse')];
  const run = simulate(valleyStation(), { actions, until: 12, talk: DEFAULT_TALK, fromBoot: false });
  if (!run.ok) throw new Error(run.error);
  const player = new Player(traceOf(run.value, actions, 12));
  const [before, after] = [player.at(4 * SECOND), player.at(11 * SECOND)];
  const port = player.network.portIndexOf('gatehouse' as SwitchId, '2' as never);
  // Its region of one does in every instance what the CIST does; in the region of the others instance 2 comes by the other uplink.
  expect([0, 1, 2].map((tree) => before.role(tree, port))).toEqual(['alternate', 'alternate', 'alternate']);
  expect([0, 1, 2].map((tree) => after.role(tree, port))).toEqual(['alternate', 'alternate', 'root']);
  expect([before.passes(55, port), after.passes(55, port)]).toEqual([false, true]);
});

it('names regions that are not there, and takes trees that come up on the way', () => {
  const design = valleyStation();
  const scenario = (actions: object[]) => readScenario({ actions, until: 5 }, design);
  expect(scenario([speak(1, 'ferry', 'harbour')])).toMatchObject({
    ok: false,
    error: [{ path: 'actions[0].region', found: '"harbour"' }],
  });
  const later = [
    { at: 1, do: 'speak', switch: 'ferry', dialect: 'per-vlan-rstp' },
    { at: 2, do: 'bridge-priority', switch: 'ferry', tree: vlanTree(15), priority: 0 },
  ];
  expect(scenario(later).ok).toBe(true);
  expect(scenario([later[1]!])).toMatchObject({ ok: false, error: [{ path: 'actions[0].tree' }] });
  expect(scenario([...later, { at: 3, do: 'link-down', link: 'nothing' as LinkId }])).toMatchObject({ ok: false });
});
