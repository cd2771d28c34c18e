/** What a run is, told by agents and read again, is the same; and what agents tell wrongly is told, not believed. */
import fc from 'fast-check';
import { fernhollow, townOffice, valleyStation } from '../../../demo/demos';
import type { Design } from '../../../model/document';
import { SECOND } from '../../../modes/entity';
import { Simulation } from '../../../sim/engine/simulation';
import { anyDesign } from '../../../testing/networks';
import { tries } from '../../../testing/runs';
import { compileNetwork } from '../../../topology/network';
import { treesOf } from '../../../topology/trees';
import { observeRun } from '../ofRun';
import { observedSwitchSchema, type ObservedSwitch } from '../observation';
import { compareOids, type Varbind } from './mib';
import { logicalBridges, readAgent } from './read';
import { agentOf, contextOf, type Agent } from './write';

const designs: fc.Arbitrary<Design> = fc.oneof(anyDesign, fc.constantFrom(fernhollow(), valleyStation(), townOffice()));

const observed = (design: Design, seconds: number): ObservedSwitch[] => {
  const simulation = new Simulation(compileNetwork(design), treesOf(design));
  simulation.boot();
  simulation.runTo(seconds * SECOND);
  return observeRun(simulation, design, (t, s) => ({ count: t + s, at: 0, forwards: (port) => (port % 7) + s }));
};

/** As a reader goes about it: the bridges within follow from the switch's own answers. */
const read = (source: string, { own, bridges }: Agent): ObservedSwitch =>
  readAgent(
    source,
    own,
    logicalBridges(own).map(({ context }) => bridges.get(context!)!),
  );

it('tells every moment of a run, and is read as it was', () => {
  fc.assert(
    fc.property(designs, fc.integer({ min: 0, max: 70 }), (design, seconds) => {
      for (const sw of observed(design, seconds)) {
        expect(observedSwitchSchema.parse(sw)).toEqual(sw);
        const { missing: _, ...again } = read(sw.source, agentOf(sw, 100));
        const { missing: __, ...was } = sw;
        expect(again).toEqual(was);
      }
    }),
    { numRuns: tries(40) },
  );
});

it('answers in the order of names, each once', () => {
  const [sw] = observed(fernhollow(), 50);
  const { own, bridges } = agentOf(sw!, 0);
  expect([...bridges.keys()]).toEqual(sw!.trees.map(({ tree }) => contextOf(tree)));
  for (const all of [own, ...bridges.values()])
    for (let i = 1; i < all.length; i += 1) expect(compareOids(all[i - 1]!.oid, all[i]!.oid)).toBeLessThan(0);
});

it('reads whatever comes in place of an answer, and says what it could not use', () => {
  const all = [fernhollow(), valleyStation()].flatMap((design) => observed(design, 50).map((sw) => agentOf(sw, 0).own));
  const anyValue = fc.oneof(
    fc.record({ type: fc.constant('octets' as const), value: fc.uint8Array({ maxLength: 20 }) }),
    fc.record({ type: fc.constant('integer' as const), value: fc.integer() }),
    fc.record({ type: fc.constant('gauge' as const), value: fc.double() }),
    fc.record({ type: fc.constant('oid' as const), value: fc.constant('1.3.6') }),
  );
  fc.assert(
    fc.property(
      fc.constantFrom(...all),
      fc.array(fc.tuple(fc.nat(), anyValue), { maxLength: 30 }),
      fc.nat(),
      (own, changes, cut) => {
        const told: Varbind[] = [...own];
        for (const [at, value] of changes) told[at % told.length] = { ...told[at % told.length]!, ...value };
        const made = readAgent('there', told.slice(0, cut % (told.length + 1)));
        expect(() => observedSwitchSchema.parse(made)).not.toThrow();
      },
    ),
    { numRuns: tries(200) },
  );
});

it('reads half a region as what it is', () => {
  const [sw] = observed(valleyStation(), 50);
  const { own } = agentOf(sw!, 0);
  const without = (table: string): ObservedSwitch =>
    readAgent(
      'there',
      own.filter(({ oid }) => !oid.startsWith(`1.3.111.2.802.1.1.6.1.${table}`)),
    );
  expect(without('7')).toMatchObject({ mst: { name: '', revision: 0, digest: null, instances: sw!.mst!.instances } });
  expect(without('7').missing).toContain('It tells of instances, and of no MST configuration (IEEE8021-MSTP-MIB).');
  expect(without('').missing).toContain('It runs MSTP, and tells of no region and instances (IEEE8021-MSTP-MIB).');
  expect(without('2').trees.map(({ tree }) => tree)).toEqual(['cst']);
});

it('says what a switch does not tell', () => {
  expect(readAgent('192.0.2.1', []).missing).toEqual([
    'It tells of no interfaces (IF-MIB).',
    'It tells of no bridge (BRIDGE-MIB).',
    'It tells of no VLANs (Q-BRIDGE-MIB).',
    'It tells of no neighbours (LLDP-MIB).',
  ]);
  const odd = readAgent('there', [{ oid: '1.3.6.1.2.1.1.5.0', type: 'integer', value: 7 }]);
  expect(odd.missing).toContain('sysName is of another kind than the standard has it.');
});
