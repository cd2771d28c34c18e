import fc from 'fast-check';
import type { SwitchId } from '../../../core/model/ids';
import { regionsIn } from '../../../core/analysis/regions/regions';
import { valleyStation } from '../../../core/demo/demos';
import { solutionOf } from '../../../core/testing/networks';
import { around, overlaps } from '../../map/occupied';
import { plainBox, plainLine } from '../../map/testing';
import { bordersOf } from './regionBorders';

const design = valleyStation();
const regions = regionsIn(solutionOf(design).network);
const ends = new Map(design.links.map((link) => [link.id, [link.a.switch, link.b.switch] as const]));
const regionAt = (id: SwitchId) => regions.find((region) => region.switches.includes(id));

describe('what differs at the border of a region', () => {
  it('stands on links between regions alone, over no box, no name and nothing else of its kind', () => {
    const places = fc.uniqueArray(fc.nat(80), { minLength: design.switches.length, maxLength: design.switches.length });
    fc.assert(
      fc.property(places, (at) => {
        const boxes = design.switches.map((sw, i) =>
          plainBox(sw.id, { x: 260 * (at[i]! % 9), y: 160 * Math.floor(at[i]! / 9) }),
        );
        const centre = (id: SwitchId) => boxes.find((box) => box.id === id)!.centre;
        const lines = design.links.map((link) => plainLine(link.id, centre(link.a.switch), centre(link.b.switch)));
        const name = { x: 300, y: 100, width: 200, height: 20 };
        const borders = bordersOf(regions, boxes, lines, (link) => ends.get(link), [name], 12);
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

  it('says in which parts of the settings it lies', () => {
    const boxes = design.switches.map((sw, i) => plainBox(sw.id, { x: 400 * i, y: 300 * (i % 2) }));
    const [inside, outside] = [regions[0]!.switches[0]!, regions[1]!.switches[0]!];
    const line = plainLine('l', boxes.find((box) => box.id === inside)!.centre, { x: 0, y: 4000 });
    const [border] = bordersOf(regions, boxes, [line], () => [inside, outside], [], 12);
    const [a, b] = [regions[0]!.map.configurationId, regions[1]!.map.configurationId];
    expect(border!.label.includes('revision')).toBe(a.revision !== b.revision);
    expect(border!.label.includes('name')).toBe(a.name !== b.name);
    expect(border!.label.includes('VLANs')).toBe(a.digest !== b.digest);
  });
});
