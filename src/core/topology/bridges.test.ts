import * as fc from 'fast-check';
import type { Design, LinkEnd } from '../model/document';
import type { PortId, SwitchId } from '../model/ids';
import { randomDesign } from '../testing/networks';
import { solveTrees } from '../tree/solve';
import { compileNetwork } from './network';
import { treesOf } from './trees';
import { tries } from '../testing/runs';

const NAMES = { id: (id: string) => `far-${id}` as PortId, number: (number: number) => number + 1000 };

/** The same network with ports of a switch that no other switch has alike. */
function renamed(design: Design, other: SwitchId): Design {
  const at = (end: LinkEnd): LinkEnd => (end.switch === other ? { ...end, port: NAMES.id(end.port) } : end);
  return {
    ...design,
    switches: design.switches.map((sw) => ({
      ...sw,
      ports:
        sw.id === other
          ? sw.ports.map((port) => ({ ...port, id: NAMES.id(port.id), number: NAMES.number(port.number) }))
          : sw.ports,
    })),
    links: design.links.map((link) => ({ ...link, a: at(link.a), b: at(link.b) })),
    bundles: [],
    hosts: [],
  };
}

/** The network in which the first switch has the ports of both. */
const inOne = (design: Design, first: SwitchId, second: SwitchId): Design => {
  const ports = design.switches.find((sw) => sw.id === second)!.ports;
  const move = <E extends { switch: SwitchId }>(end: E): E => (end.switch === second ? { ...end, switch: first } : end);
  return {
    ...design,
    switches: design.switches.flatMap((sw) =>
      sw.id === second ? [] : sw.id === first ? [{ ...sw, ports: [...sw.ports, ...ports] }] : [sw],
    ),
    links: design.links.map((link) => ({ ...link, a: move(link.a), b: move(link.b) })),
  };
};

describe('switches that act as one bridge', () => {
  it.each(['standard', 'perVlan', 'mixed'] as const)('settle as one switch with the ports of both: %s', (family) => {
    fc.assert(
      fc.property(randomDesign(family, 6), fc.nat(), fc.nat(), (drawn, i, j) => {
        fc.pre(drawn.switches.length > 2);
        const [a, b] = [drawn.switches[i % drawn.switches.length]!, drawn.switches[j % drawn.switches.length]!];
        fc.pre(a !== b && a.up && b.up);
        const design = renamed(drawn, b.id);
        const trees = treesOf(inOne(design, a.id, b.id));
        const solved = (of: Design, asOne: SwitchId[][]) => {
          const network = compileNetwork(of, null, null, asOne);
          return solveTrees(network, trees).map((tree) =>
            design.switches.flatMap((sw) =>
              sw.ports.map((port) => {
                const p = network.portIndexOf(sw.id, port.id) + 1 || network.portIndexOf(a.id, port.id) + 1;
                return [sw.id, port.id, tree.role[p - 1], tree.rootPathCost[network.owner[p - 1]!]];
              }),
            ),
          );
        };
        expect(solved(design, [[a.id, b.id]])).toEqual(solved(inOne(design, a.id, b.id), []));
      }),
      { numRuns: tries(30) },
    );
  });

  it('run while one of them has power, with the ports of the other down', () => {
    fc.assert(
      fc.property(randomDesign('standard', 4), (drawn) => {
        fc.pre(drawn.switches.length > 1);
        const [a, b] = drawn.switches;
        const design = { ...drawn, switches: drawn.switches.map((sw) => ({ ...sw, up: sw.id !== b!.id })) };
        const network = compileNetwork(design, null, null, [[a!.id, b!.id]]);
        const s = network.switchIndex.get(b!.id)!;
        expect(s).toBe(network.switchIndex.get(a!.id));
        expect(network.switches[s]!.up).toBe(true);
        for (const port of b!.ports) expect(network.ports[network.portIndexOf(b!.id, port.id)]!.up).toBe(false);
      }),
      { numRuns: tries(12) },
    );
  });
});
