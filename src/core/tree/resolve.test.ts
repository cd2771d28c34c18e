import fc from 'fast-check';
import { commandSchema } from '../edit/commands';
import { edit } from '../edit/edit';
import { anyDesign, regionsDesign } from '../testing/networks';
import { changedIn } from '../testing/variants';
import type { Design } from '../model/document';
import { resolve } from './resolve';
import { viewTree, type Solution } from './settled';
import { solve } from './solve';
import { tries } from '../testing/runs';

const view = ({ network, trees }: Solution) => trees.map((tree) => viewTree(network, tree));

/** Holds what resolving gives against solving from scratch, the network that it shares too. */
function sameAsScratch({ network, trees }: Solution, design: Design): void {
  const scratch = solve(design);
  expect(view({ network, trees })).toEqual(view(scratch));
  expect(network.design).toBe(design);
  for (const part of ['switches', 'ports', 'far', 'live', 'shut', 'use', 'carried', 'order', 'bundles'] as const)
    expect(network[part]).toEqual(scratch.network[part]);
}

describe('solving again after a change', () => {
  it('gives what solving from scratch gives, whatever field is another', () => {
    const changes = anyDesign.chain((start) =>
      fc
        .array(fc.constant(null), { maxLength: 6 })
        .chain((steps) =>
          steps.reduce<fc.Arbitrary<Design[]>>(
            (before) => before.chain((all) => changedIn(all.at(-1)!).map((next) => [...all, next])),
            fc.constant([start]),
          ),
        ),
    );
    fc.assert(
      fc.property(changes, ([start, ...later]) => {
        let solution = solve(start!);
        for (const design of later) {
          solution = resolve(solution, design).solution;
          sameAsScratch(solution, design);
        }
      }),
      { numRuns: tries(100) },
    );
  });

  it('gives what solving from scratch gives', () => {
    const change = fc.record({
      sw: fc.nat(),
      port: fc.nat(),
      tree: fc.constantFrom(null, 'cst', 'vlan:1', 'vlan:15', 'mst:0', 'mst:1'),
      value: fc.constantFrom(0, 16, 128),
      what: fc.constantFrom(
        'bridge',
        'cost',
        'priority',
        'up',
        'edge',
        'name',
        'dialect',
        'vlans',
        'power',
        'method',
        'list',
        'unlist',
        'load',
        'host',
        'unport',
        'observe',
        'replug',
        'region',
        'map',
        'revision',
        'hops',
        'external',
        'multiple',
      ),
    });
    fc.assert(
      fc.property(fc.oneof(anyDesign, regionsDesign(6)), fc.array(change, { maxLength: 6 }), (start, changes) => {
        let design = start;
        const first = solve(design);
        let solution = first;
        for (const { sw, port, tree, value, what } of changes) {
          const target = design.switches[sw % design.switches.length]!;
          const at = { switch: target.id, port: target.ports[port % Math.max(1, target.ports.length)]?.id ?? 'x' };
          const command = {
            bridge: { do: 'set-bridge-priority', switch: target.id, tree, priority: value * 256 },
            cost: { do: 'set-port-cost', ...at, tree, cost: value + 1 },
            priority: { do: 'set-port-priority', ...at, tree, priority: value },
            up: { do: 'set-port', ...at, up: value > 0 },
            edge: { do: 'set-port', ...at, edge: value > 0 },
            vlans: { do: 'set-port', ...at, vlans: { mode: 'trunk', native: 1, allowed: '15' } },
            name: { do: 'set-switch', switch: target.id, name: `n${value}` },
            power: { do: 'set-switch', switch: target.id, up: value > 0 },
            method: { do: 'set-switch', switch: target.id, pathCost: value > 0 ? 'short' : null },
            list: { do: 'add-vlan', vlan: { id: value + 2 } },
            unlist: { do: 'remove-vlan', vlan: value > 0 ? 15 : 25 },
            load: { do: 'set-vlan', vlan: 15, load: value },
            host: { do: 'add-host', host: { id: `h${value}`, mac: '02:00:00:00:ff:01', vlan: 15, attach: [at] } },
            unport: { do: 'remove-port', ...at },
            region: { do: 'set-switch', switch: target.id, region: value > 0 ? 'r1' : null },
            multiple: { do: 'set-switch', switch: target.id, dialect: 'mstp' },
            map: { do: 'map-vlans', region: 'r0', vlans: '10', instance: value > 0 ? 2 : 0 },
            revision: { do: 'set-region', region: 'r0', revision: value },
            hops: { do: 'set-switch', switch: target.id, timers: { maxHops: value > 0 ? 6 : 20 } },
            external: { do: 'set-external-cost', ...at, cost: value + 1 },
            observe: { do: 'set-observed', observed: [{ ...at, device: 'other' }] },
            replug: { do: 'set-link', link: 'l0', a: at },
            dialect: { do: 'set-switch', switch: target.id, dialect: value > 0 ? 'rstp' : 'off' },
          }[what];
          const edited = edit(design, commandSchema.parse(command));
          if (!edited.ok) continue;
          design = edited.value.design;
          solution = resolve(solution, design).solution;
          sameAsScratch(solution, design);
        }
      }),
      { numRuns: tries(100) },
    );
  });
});
