/** Random networks with bundles: parallel cables, most of them bundled at both ends, some wrongly. */
import fc from 'fast-check';
import type { BundleMode, Design } from '../model/document';
import { designOf } from './networks';

interface BundlingOptions {
  readonly modes: readonly BundleMode[];
  /** Cables between two switches, at most. */
  readonly cables?: number;
  /** Whether members may be grouped across neighbours, set otherwise than each other, limited. */
  readonly odd?: boolean;
}

/** Three switches, up to so many cables between each two, bundles on them. */
export const bundledDesign = ({ modes, cables = 3, odd = true }: BundlingOptions): fc.Arbitrary<Design> => {
  const pairs = [
    ['a', 'b'],
    ['b', 'c'],
    ['a', 'c'],
  ] as const;
  const settings = fc.record({
    mode: fc.constantFrom(...modes),
    timeout: fc.constantFrom('slow', 'fast'),
    minLinks: odd ? fc.constantFrom(1, 1, 1, 2) : fc.constant(1),
    maxActive: odd ? fc.constantFrom(8, 8, 2, 1) : fc.constant(8),
  });
  return fc
    .record({
      counts: fc.tuple(...pairs.map(() => fc.integer({ min: 0, max: cables }))),
      ends: fc.array(settings, { minLength: 6, maxLength: 6 }),
      bundled: fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 6, maxLength: 6 }),
      mixed: odd ? fc.array(fc.integer({ min: 0, max: 5 }), { minLength: 3, maxLength: 3 }) : fc.constant([5, 5, 5]),
      systems: fc.array(fc.constantFrom(32_768, 32_768, 100), { minLength: 3, maxLength: 3 }),
      ports: fc.array(
        fc.record({
          priority: odd ? fc.constantFrom(32_768, 32_768, 10, 20) : fc.constant(32_768),
          key: odd ? fc.constantFrom(undefined, undefined, undefined, undefined, undefined, 7) : fc.constant(undefined),
          speed: odd ? fc.constantFrom(1000, 1000, 1000, 100) : fc.constant(1000),
        }),
        { minLength: 12, maxLength: 12 },
      ),
      cut: fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 12, maxLength: 12 }),
    })
    .map(({ counts, ends, bundled, mixed, systems, ports, cut }) => {
      const free: Record<string, number> = { a: 0, b: 0, c: 0 };
      const links = pairs
        .flatMap(([a, b], i) =>
          Array.from({ length: counts[i]! }, () => ({
            a: { switch: a, port: String((free[a]! += 1)) },
            b: { switch: b, port: String((free[b]! += 1)) },
          })),
        )
        .map((link, i) => ({ id: `l${i}`, ...link, up: cut[i]! > 0 }));
      const groups = pairs.flatMap((pair, i) =>
        pair.map((sw, side) => ({
          sw,
          n: i * 2 + side,
          ports: links
            .filter((link) => pair[0] === link.a.switch && pair[1] === link.b.switch)
            .map((link) => (side === 0 ? link.a.port : link.b.port)),
        })),
      );
      // Now and then a switch's two bundles become one, over cables to both neighbours.
      const merged = ['a', 'b', 'c'].flatMap((sw, s) => {
        const [one, two] = groups.filter((group) => group.sw === sw);
        return mixed[s] === 0 ? [{ ...one!, ports: [...one!.ports, ...two!.ports] }] : [one!, two!];
      });
      return designOf({
        switches: ['a', 'b', 'c'].map((id, s) => ({
          id,
          mac: `02:00:00:00:00:0${s + 1}`,
          lacp: { systemPriority: systems[s]! },
          ports: Array.from({ length: free[id]! }, (_, i) => {
            const { priority, key, speed } = ports[(i * 3 + s) % ports.length]!;
            return {
              id: String(i + 1),
              number: i + 1,
              speed,
              lacp: { priority, ...(key === undefined ? {} : { key }) },
            };
          }),
        })),
        links,
        bundles: merged
          .filter((group) => group.ports.length > 0 && bundled[group.n]! > 0)
          .map((group) => ({
            id: `bundle-${group.n}`,
            switch: group.sw,
            number: group.n + 1,
            ports: group.ports,
            ...ends[group.n]!,
          })),
      });
    });
};
