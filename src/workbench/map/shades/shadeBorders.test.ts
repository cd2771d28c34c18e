import fc from 'fast-check';
import type { LinkId, SwitchId } from '../../../core/model/ids';
import { regionsIn } from '../../../core/analysis/regions/regions';
import { valleyStation } from '../../../core/demo/demos';
import { solutionOf } from '../../../core/testing/networks';
import { around, overlaps } from '../occupied';
import { plainBox, plainLine } from '../testing';
import { bordersOf } from './shadeBorders';

const design = valleyStation();
const regions = regionsIn(solutionOf(design).network);
const ends = new Map(design.links.map((link) => [link.id, [link.a.switch, link.b.switch] as const]));
const regionAt = (id: SwitchId) => regions.find((region) => region.switches.includes(id));

const labelOf = (link: LinkId): string | null => {
  const [a, b] = ends.get(link)!.map(regionAt);
  return a && b && a !== b ? '≠ revision' : null;
};

describe('what is written on links between two shades', () => {
  it('stands on its links alone, over no box, no name and nothing else of its kind', () => {
    const places = fc.uniqueArray(fc.nat(80), { minLength: design.switches.length, maxLength: design.switches.length });
    fc.assert(
      fc.property(places, (at) => {
        const boxes = design.switches.map((sw, i) =>
          plainBox(sw.id, { x: 260 * (at[i]! % 9), y: 160 * Math.floor(at[i]! / 9) }),
        );
        const centre = (id: SwitchId) => boxes.find((box) => box.id === id)!.centre;
        const lines = design.links.map((link) => plainLine(link.id, centre(link.a.switch), centre(link.b.switch)));
        const name = { x: 300, y: 100, width: 200, height: 20 };
        const borders = bordersOf(boxes, lines, labelOf, [name], 12);
        for (const [i, border] of borders.entries()) {
          const [a, b] = ends.get(border.link)!;
          expect(regionAt(a)).toBeDefined();
          expect(regionAt(a)).not.toBe(regionAt(b));
          const others = [name, ...borders.slice(0, i).map((each) => each.at)];
          for (const box of boxes) others.push(around(box.centre, box.width, box.height));
          expect(others.filter((other) => overlaps(other, border.at))).toEqual([]);
        }
      }),
    );
  });
});
