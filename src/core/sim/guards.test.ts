/** Guards in runs: what shuts, holds and lets go, and that the settled trees say the same. */
import fc from 'fast-check';
import { readScenario } from './scenario/scenario';
import { FAMILIES, meshDesign, networkOf, randomDesign, regionsDesign } from '../testing/networks';
import { guarded } from '../testing/guards';
import { unlikeAtRest } from '../testing/settling';
import { tries } from '../testing/runs';
import { isClassic, type Design } from '../model/document';
import { simulate } from './simulate';

function run(design: Design, actions: readonly object[], until: number, fromBoot = false) {
  const scenario = readScenario({ actions, until }, design);
  if (!scenario.ok) throw new Error(JSON.stringify(scenario.error));
  const ran = simulate(design, scenario.value, { fromBoot });
  if (!ran.ok) throw new Error(ran.error);
  return ran.value;
}

const stranger = (at: number, port = '9') => ({
  at,
  do: 'add-switch',
  switch: { id: 'x', mac: '02:00:00:00:00:00', priority: 0, ports: [{ id: '1', number: 1 }] },
  links: [{ id: 'in', a: { switch: 'x', port: '1' }, b: { switch: 'b', port } }],
});

describe('BPDU guard', () => {
  const guarded = (settings: object = {}) =>
    networkOf({ a: { priority: 4096 }, b: { edgeBpduGuard: true, ...settings } }, ['a 1 = b 1'], {
      'b 9': { edge: true },
    });

  it("shuts an edge port at a stranger's first BPDU, and the tree stays", () => {
    const ran = run(guarded(), [stranger(1)], 20);
    expect(ran.trace.filter(({ switch: sw }) => sw === 'a')).toEqual([]);
    expect(ran.final.trees[0]!.switches).toMatchObject({ b: { root: 'a' }, x: { root: 'x' } });
    expect(ran.trace.findLast(({ switch: sw, port }) => sw === 'b' && port === '9')?.to).toBe('disabled');
  });
});

/** A classic bridge that hears a better one before its own first hello may never speak at all, and no guard hears it. */
const rapid = (design: Design): Design => ({
  ...design,
  switches: design.switches.map((sw) =>
    isClassic(sw) ? { ...sw, dialect: sw.dialect === 'stp' ? ('rstp' as const) : ('per-vlan-rstp' as const) } : sw,
  ),
});

describe('random guards', () => {
  const families = [
    ...(Object.keys(FAMILIES) as (keyof typeof FAMILIES)[]).map(
      (family) => [family, randomDesign(family, family === 'hubs' ? 4 : 8)] as const,
    ),
    ['mesh', meshDesign] as const,
    ['regions', regionsDesign(6)] as const,
  ];

  it.each(families)('%s: root guards come to rest where the solver says, also after cables are cut', (_, anyOf) => {
    fc.assert(
      fc.property(
        guarded(anyOf, { root: true, tcn: true }),
        fc.nat(),
        fc.array(fc.nat(), { maxLength: 2 }),
        (...drawn) => expect(unlikeAtRest(...drawn)).toEqual([]),
      ),
      { numRuns: tries(15) },
    );
  });

  // Where a relay would flood is not known before the trees are: families without one.
  it.each(families.filter(([family]) => family !== 'mixed'))(
    '%s: BPDU guards shut what the solver says',
    (_, anyOf) => {
      fc.assert(
        fc.property(guarded(anyOf.map(rapid), { bpdu: true, root: true }), fc.nat(), (design, seed) =>
          expect(unlikeAtRest(design, seed, [])).toEqual([]),
        ),
        { numRuns: tries(15) },
      );
    },
  );
});
