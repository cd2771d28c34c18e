/** Networks with a pair: two switches that act as one for bundles to others. */
import fc from 'fast-check';
import { editAll } from '../edit/edit';
import { pairThese } from '../edit/pairing';
import type { Design } from '../model/document';
import { designOf, networkOf } from './networks';

export const PAIR_MAC = '02:00:00:00:0a:01';

/** One switch's half: domain 7, peer link `peer-` and its id. */
export const halfOf = (sw: string, rest: object = {}): object => ({
  domain: 7,
  mac: PAIR_MAC,
  peerLink: `peer-${sw}`,
  ...rest,
});

type Settings = Record<string, unknown>;

export interface PairedOptions {
  readonly switches?: Readonly<Record<string, Settings>>;
  readonly half?: Readonly<Record<string, object>>;
  readonly bundles?: Readonly<Record<string, object>>;
  readonly ports?: Record<string, Settings>;
  readonly rest?: Settings;
}

/**
 * Primary `p` and secondary `s`, two cables of peer link between them (ports 1 and 2) and one of their keepalive (3); `x` and `y`
 * with a bundle of a cable to each (4, 5) and `r` with a single cable to each (6); `x` and `r` are cabled to each other.
 */
export function pairedNetwork({
  switches = {},
  half = {},
  bundles = {},
  ports = {},
  rest = {},
}: PairedOptions = {}): Design {
  const own = { keepalive: 'own-link', keepalivePort: '3' };
  const bundle = (sw: string, id: string, members: string[], more: object = {}) => ({
    id,
    number: Number(members[0]),
    switch: sw,
    ports: members,
    ...more,
    ...bundles[id],
  });
  return networkOf(
    {
      p: { pair: halfOf('p', { ...own, priority: 10, ...half['p'] }), ...switches['p'] },
      s: { pair: halfOf('s', { ...own, priority: 20, ...half['s'] }), ...switches['s'] },
      x: { ...switches['x'] },
      y: { ...switches['y'] },
      r: { ...switches['r'] },
    },
    [
      ...['p 1 = s 1', 'p 2 = s 2', 'p 3 = s 3'],
      ...['p 4 = x 1', 's 4 = x 2', 'p 5 = y 1', 's 5 = y 2'],
      ...['p 6 = r 1', 's 6 = r 2', 'x 3 = r 3'],
    ],
    ports,
    {
      bundles: [
        bundle('p', 'peer-p', ['1', '2']),
        bundle('s', 'peer-s', ['1', '2']),
        ...['p', 's'].flatMap((sw) => [
          bundle(sw, `${sw}-x`, ['4'], { pairNumber: 1 }),
          bundle(sw, `${sw}-y`, ['5'], { pairNumber: 2 }),
        ]),
        bundle('x', 'x-pair', ['1', '2']),
        bundle('y', 'y-pair', ['1', '2']),
      ],
      ...rest,
    },
  );
}

/** What may fail or come back in `pairedNetwork`, by number: the peer link, the keepalive, `p`, `s`, and each cable to others. */
export function turnedInPair(design: Design, turn: number): Design {
  const { switches, links } = design;
  const at = turn % (links.length + 1);
  const turnedLinks = (...own: string[]): Design => ({
    ...design,
    links: links.map((link) => (own.includes(link.id) ? { ...link, up: !link.up } : link)),
  });
  if (at === 0) return turnedLinks('l0', 'l1');
  if (at === 1) return turnedLinks('l2');
  if (at > 3) return turnedLinks(`l${at - 1}`);
  return { ...design, switches: switches.map((sw, s) => (s === at - 2 ? { ...sw, up: !sw.up } : sw)) };
}

/** The same network with the pair as one switch twice as wide, `p`: what was port 4 of `s` is its port 24. */
export function collapsed(design: Design): Design {
  const at = <E extends { readonly switch: string; readonly port: string }>(end: E): E =>
    end.switch === 's' ? { ...end, switch: 'p', port: `2${end.port}` } : end;
  const [p, s] = ['p', 's'].map((id) => design.switches.find((sw) => sw.id === id)!);
  const inside = ({ a, b }: Design['links'][number]): boolean =>
    [a, b].every((end) => end.switch === 'p' || end.switch === 's');
  return designOf({
    ...design,
    switches: design.switches.flatMap((sw): object[] =>
      sw === s
        ? []
        : sw === p
          ? [
              {
                ...p,
                pair: undefined,
                mac: PAIR_MAC,
                ports: [
                  ...p!.ports,
                  ...s!.ports.map((port) => ({ ...port, id: `2${port.id}`, number: port.number + 20 })),
                ],
              },
            ]
          : [sw],
    ),
    links: design.links.filter((link) => !inside(link)).map((link) => ({ ...link, a: at(link.a), b: at(link.b) })),
    hosts: design.hosts.map((host) => ({ ...host, attach: host.attach.map(at) })),
    bundles: design.bundles.flatMap(({ pairNumber, ...bundle }) => {
      if (bundle.switch === 's' || bundle.id === 'peer-p') return [];
      const half = design.bundles.find((each) => each.switch === 's' && each.pairNumber === pairNumber);
      return pairNumber === undefined || !half
        ? [bundle]
        : [{ ...bundle, ports: [...bundle.ports, ...half.ports.map((port) => `2${port}`)] }];
    }),
  });
}

/** Designs of which two switches are made a pair; null where no two of one can be. */
export const withPair = (designs: fc.Arbitrary<Design>): fc.Arbitrary<Design | null> =>
  designs.chain((design) => {
    const made = pairsIn(design);
    return made.length === 0 ? fc.constant(null) : fc.constantFrom(...made);
  });

/** All ways to make two switches of a design a pair. */
const pairsIn = (design: Design): Design[] =>
  design.switches.flatMap((one) =>
    design.switches.flatMap((other) => {
      const commands = one === other ? null : pairThese(design, [one.id, other.id]);
      const edited = commands?.ok ? editAll(design, commands.value) : null;
      return edited?.ok ? [edited.value.design] : [];
    }),
  );
