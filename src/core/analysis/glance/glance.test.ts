/** A glance: every switch inside of the picture, every pair once, and as many findings as there are. */
import fc from 'fast-check';
import { fernhollow } from '../../demo/demos';
import { campusOf } from '../../testing/campus';
import { anyDesign } from '../../testing/networks';
import { tries } from '../../testing/runs';
import { solve } from '../../tree/solve';
import { findingsOf } from '../findings/findings';
import { glanceAt, SIZE } from './glance';

it('has every switch inside of the picture, and every pair of joined switches once', () => {
  fc.assert(
    fc.property(anyDesign, (design) => {
      const { switches, links } = glanceAt(design);
      expect(switches).toHaveLength(design.switches.length);
      for (const [x, y] of switches) expect(x >= 0 && x <= SIZE.width && y >= 0 && y <= SIZE.height).toBe(true);
      const pairs = new Set(
        design.links.flatMap(({ a, b }) => (a.switch === b.switch ? [] : [[a.switch, b.switch].sort().join('\n')])),
      );
      const drawn = links.map((pair) =>
        pair
          .map((i) => design.switches[i]!.id)
          .sort()
          .join('\n'),
      );
      expect([...drawn].sort()).toEqual([...pairs].sort());
    }),
    { numRuns: tries(30) },
  );
});

it('counts the findings, and draws an empty design as nothing', () => {
  const demo = fernhollow();
  expect(glanceAt(demo).findings).toBe(findingsOf(demo, solve(demo)).length);
  expect(glanceAt({ ...demo, switches: [], links: [], hosts: [], bundles: [] })).toMatchObject({
    switches: [],
    links: [],
  });
  expect(new Set(glanceAt(campusOf({ switches: 50, vlans: 1 })).switches.map(String)).size).toBeGreaterThan(40);
});
