import fc from 'fast-check';
import { commandSchema } from '../design/commands';
import { edit } from '../design/edit';
import { anyDesign } from '../testing/networks';
import { resolve, treesTouched } from './resolve';
import { viewTree, type Solution } from './settled';
import { solve } from './solve';

const view = ({ network, trees }: Solution) => trees.map((tree) => viewTree(network, tree));

describe('solving again after a change', () => {
  it('gives what solving from scratch gives', () => {
    const change = fc.record({
      sw: fc.nat(), port: fc.nat(), tree: fc.constantFrom(null, 'cst', 'vlan:1', 'vlan:15'), value: fc.constantFrom(0, 16, 128),
      what: fc.constantFrom('bridge', 'cost', 'priority', 'up', 'edge', 'name', 'dialect', 'vlans'),
    });
    fc.assert(
      fc.property(anyDesign, fc.array(change, { maxLength: 6 }), (start, changes) => {
        let design = start;
        const first = solve(design);
        if (!first.ok) throw new Error(first.error.path);
        let solution = first.value;
        for (const { sw, port, tree, value, what } of changes) {
          const target = design.switches[sw % design.switches.length]!;
          const at = { switch: target.id, port: target.ports[port % Math.max(1, target.ports.length)]?.id ?? '' };
          const command = {
            bridge: { do: 'set-bridge-priority', switch: target.id, tree, priority: value * 256 },
            cost: { do: 'set-port-cost', ...at, tree, cost: value + 1 },
            priority: { do: 'set-port-priority', ...at, tree, priority: value },
            up: { do: 'set-port', ...at, up: value > 0 },
            edge: { do: 'set-port', ...at, edge: value > 0 },
            vlans: { do: 'set-port', ...at, vlans: { mode: 'trunk', native: 1, allowed: '15' } },
            name: { do: 'set-switch', switch: target.id, name: `n${value}` },
            dialect: { do: 'set-switch', switch: target.id, dialect: value > 0 ? 'rstp' : 'off' },
          }[what];
          const edited = edit(design, commandSchema.parse(command));
          if (!edited.ok) continue;
          design = edited.value.design;
          const again = resolve(solution, design, edited.value.patches);
          const scratch = solve(design);
          if (!again.ok || !scratch.ok) throw new Error('not solved');
          solution = again.value.solution;
          expect(view(solution)).toEqual(view(scratch.value));
        }
      }),
      { numRuns: 200 },
    );
  });

  it('looks at nothing where only names, places and notes changed', () => {
    const path = (...parts: (string | number)[]) => [{ op: 'replace' as const, path: parts }];
    expect(treesTouched(path('name'))).toEqual(new Set());
    expect(treesTouched(path('switches', 0, 'position'))).toEqual(new Set());
    expect(treesTouched(path('switches', 0, 'trees', 'vlan:15'))).toEqual(new Set(['vlan:15']));
    expect(treesTouched(path('switches', 0, 'ports', 1, 'trees', 'vlan:15', 'cost'))).toEqual(new Set(['vlan:15']));
    expect(treesTouched(path('switches', 0, 'ports', 1, 'cost'))).toBe('all');
    expect(treesTouched(path('links', 0, 'up'))).toBe('all');
  });
});
