import fc from 'fast-check';
import { fernhollow, townOffice, valleyStation } from '../../core/demo/demos';
import { edit } from '../../core/edit/edit';
import { commandSchema } from '../../core/edit/commands';
import { anyDesign } from '../../core/testing/networks';
import { campusOf } from '../../core/testing/campus';
import { tries } from '../../core/testing/runs';
import { boundsOf } from './bounds';
import { boxOf, sidesOf } from './boxes';
import { Detours } from './detours';
import { Boxes, facing } from './facing';
import { foldSkeleton } from './folded';
import { foldedAtFirst, mapGroups } from '../state/folding';
import { shortened } from '../ui/words/shortened';
import { spreadAlong } from './fit';
import { layOutMap, positionsOf, skeletonOf } from './geometry';
import { around, overlaps } from './occupied';
import { movedText } from './MovedBar';
import { courseOf } from './run';
import { plainLine } from './testing';
import { fitted } from './zoom';
import { strandStyle } from '../ui/strandStyle';
import { vlanTree, type PortId, type SwitchId } from '../../core/model/ids';

const skeleton = (design: Parameters<typeof skeletonOf>[0]) => skeletonOf(design, null);

describe('the layout of the map', () => {
  it('puts every cable end on the border of its switch, no two on the same spot', () => {
    fc.assert(
      fc.property(anyDesign, fc.integer({ min: 0, max: 6 }), (design, strands) => {
        const bones = skeleton(design);
        for (const { width, height, attachments } of layOutMap(bones, positionsOf(bones), { strands }).boxes) {
          for (const { at, side } of attachments) {
            expect(
              side === 'left' || side === 'right'
                ? at.x === (side === 'left' ? 0 : width)
                : at.y === (side === 'top' ? 0 : height),
            ).toBe(true);
            expect(at.x >= 0 && at.x <= width && at.y >= 0 && at.y <= height).toBe(true);
          }
          expect(new Set(attachments.map(({ at }) => `${at.x} ${at.y}`)).size).toBe(attachments.length);
        }
      }),
    );
  });

  it('keeps cables of the same pair side by side: they do not cross', () => {
    const bones = skeleton(fernhollow());
    const [one, two] = layOutMap(bones, positionsOf(bones), { strands: 2 }).lines;
    expect(Math.sign(one!.from.x - two!.from.x)).toBe(Math.sign(one!.to.x - two!.to.x));
  });

  it('shows everything when the whole map is fitted, and blows nothing up', () => {
    const frame = { width: 750, height: 500 };
    for (const design of [
      fernhollow(),
      campusOf({ switches: 50, vlans: 1 }),
      { ...fernhollow(), switches: [], links: [], hosts: [] },
    ]) {
      const bones = skeleton(design);
      const places = positionsOf(bones);
      const { x, y, zoom } = fitted(boundsOf(bones, places, { strands: 1 }), frame);
      expect(zoom).toBeLessThan(1.2);
      const { boxes } = layOutMap(bones, places, { strands: 1, scale: zoom });
      for (const { centre, width, height } of boxes) {
        expect(centre.x - width / 2 + x).toBeGreaterThanOrEqual(0);
        expect(centre.x + width / 2 + x).toBeLessThanOrEqual(frame.width);
        expect(centre.y - height / 2 + y).toBeGreaterThanOrEqual(0);
        expect(centre.y + height / 2 + y).toBeLessThanOrEqual(frame.height);
      }
    }
  });

  it('lays no box over another, whatever the scale and the places', () => {
    fc.assert(
      fc.property(
        anyDesign.chain((design) =>
          fc.tuple(
            fc.constant(design),
            fc.uniqueArray(fc.record({ x: fc.integer({ min: 0, max: 900 }), y: fc.integer({ min: 0, max: 600 }) }), {
              minLength: design.switches.length,
              maxLength: design.switches.length,
              comparator: (a, b) => Math.abs(a.x - b.x) < 40 && Math.abs(a.y - b.y) < 40,
            }),
          ),
        ),
        fc.double({ min: 0.3, max: 2, noNaN: true }),
        ([design, spots], scale) => {
          const places = new Map(design.switches.map((sw, i) => [sw.id, spots[i]!]));
          const { boxes } = layOutMap(skeleton(design), places, { strands: 2, scale });
          const rectangles = boxes.map(({ centre, width, height }) => around(centre, width, height));
          rectangles.forEach((one, i) =>
            rectangles.slice(i + 1).forEach((two) => expect(overlaps(one, two)).toBe(false)),
          );
        },
      ),
      { numRuns: tries(50) },
    );
  });

  it.each([
    ['the demo', fernhollow()],
    ['the valley', valleyStation()],
    ['the town office', townOffice()],
    ['a campus of 50', campusOf({ switches: 50, vlans: 1, perPair: 10 })],
    ['a campus of 200, folded', campusOf({ switches: 200, vlans: 1 })],
    ['a campus of 500, folded', campusOf({ switches: 500, vlans: 1 })],
  ])('leads no link of %s across a box that it does not belong to, from afar and from near', (_, design) => {
    const bones = foldSkeleton(skeleton(design), mapGroups(design, foldedAtFirst(design)).stands);
    const places = positionsOf(bones);
    const { zoom } = fitted(boundsOf(bones, places, { strands: 1 }), { width: 750, height: 500 });
    for (const scale of [zoom, 1]) {
      const { boxes, lines } = layOutMap(bones, places, { strands: 1, scale });
      const found = new Boxes(boxes.map(({ centre, width, height }) => around(centre, width, height)));
      const index = new Map(boxes.map((box, i) => [box.id, i]));
      for (const [i, { a, b }] of bones.links.entries()) {
        const points = [lines[i]!.from, ...lines[i]!.bends, lines[i]!.to];
        for (const [k, end] of points.slice(1).entries())
          expect(found.across(points[k]!, end, [index.get(a.switch)!, index.get(b.switch)!])).toEqual([]);
      }
    }
  });

  it('gives switches without a place one of their own', () => {
    const design = fernhollow();
    const loose = {
      ...design,
      switches: design.switches.map(({ position: _, ...sw }) => ({ ...sw, position: undefined })),
    };
    const places = [...positionsOf(skeleton(loose)).values()].map(({ x, y }) => `${x} ${y}`);
    expect(new Set(places).size).toBe(design.switches.length);
  });

  it('stays where it is when an edit changes no place, name or cable', () => {
    const design = fernhollow();
    const bones = skeleton(design);
    const after = (input: object) => {
      const edited = edit(design, commandSchema.parse(input));
      if (!edited.ok) throw new Error(edited.error.path);
      return skeletonOf(edited.value.design, bones);
    };
    expect(after({ do: 'set-bridge-priority', switch: 'lodge', tree: null, priority: 0 })).toBe(bones);
    expect(after({ do: 'set-switch', switch: 'lodge', name: 'cabin' })).not.toBe(bones);
    expect(after({ do: 'set-link', link: 'l1', up: false })).not.toBe(bones);
  });
});

describe('a strand', () => {
  const line = plainLine('l', { x: 0, y: 0 }, { x: 100, y: 0 });

  it('runs beside its link and stops short by what its ends need', () => {
    expect(courseOf(line, 7).path(5, 24)).toBe('M5 7L76 7');
    expect(courseOf(line, 7).to.out.x).toBe(-1);
  });

  it('goes up and over where a switch is cabled to itself', () => {
    const path = courseOf({ ...line, loops: true }, 0).path(0, 0);
    expect(path.match(/L/g)).toHaveLength(3);
    expect(path).toContain('-46');
  });

  it('keeps beside its link around a bend, and has points along all of its way', () => {
    const bent = { ...line, to: { x: 100, y: 100 }, bends: [{ x: 100, y: 0 }] };
    const course = courseOf(bent, 5);
    expect(course.path(10, 10)).toBe('M10 5L95 5L95 90');
    expect(course.along(0.5)).toEqual({ x: 95, y: 5 });
    expect(course.along(1)).toEqual({ x: 95, y: 100 });
    expect(course.length).toBe(190);
  });

  it('is told from its neighbours by more than colour', () => {
    const styles = Array.from({ length: 24 }, (_, i) => JSON.stringify(strandStyle(i)));
    expect(new Set(styles).size).toBe(24);
    for (let i = 0; i < 5; i += 1) expect(strandStyle(i).dash).not.toBe(strandStyle(i + 1).dash);
  });
});

describe('what has little room', () => {
  it('is named by both ends of its name', () => {
    expect(shortened('acc-117', 9)).toBe('acc-117');
    expect(shortened('access-floor-117', 9)).toBe('acc…r-117');
    expect(shortened('access', 1)).toBe('');
    fc.assert(
      fc.property(fc.string(), fc.nat(30), (name, most) =>
        expect([...shortened(name, most)].length).toBeLessThanOrEqual(Math.max(most, 0)),
      ),
    );
  });
  it('is named whole where the labels at its sides leave the row of the name free', () => {
    const named = (lean: number) => {
      const end = { port: '1' as PortId, side: 'right' as const, lean, index: 0 };
      const sw = { id: 's' as SwitchId, name: 'workshop', tier: 'access' as const, position: undefined };
      return boxOf(sw, { x: 0, y: 0 }, sidesOf([end]), 22, { width: 92, height: 62 }, { strands: 1 }).name;
    };
    expect(named(0.4)).toBe('workshop');
    expect(named(-0.2)).toBe('wo…shop');
  });
  it('has its ends in order along a side, as near to where they would be as there is room for', () => {
    expect(spreadAlong([10, 50], 20, 0, 100)).toEqual([10, 50]);
    expect(spreadAlong([50, 50, 50], 20, 0, 100)).toEqual([30, 50, 70]);
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -50, max: 250 }), { minLength: 1, maxLength: 30 }), (wishes) => {
        const places = spreadAlong(
          [...wishes].sort((a, b) => a - b),
          22,
          5,
          195,
        );
        expect(places).toHaveLength(wishes.length);
        for (const [i, at] of places.entries()) {
          expect(at).toBeGreaterThanOrEqual(5 - 1e-6);
          expect(at).toBeLessThanOrEqual(195 + 1e-6);
          if (i > 0) expect(at - places[i - 1]!).toBeGreaterThanOrEqual(Math.min(22, 190 / (wishes.length - 1)) - 1e-6);
        }
      }),
    );
  });
});

describe('what the last change moved, in words', () => {
  const end = (vid: number) => ({
    tree: vlanTree(vid),
    switch: 'a' as SwitchId,
    port: '1' as PortId,
    index: 0,
    before: null,
    after: null,
  });
  it.each([
    [[], [15], 'no port changed its role'],
    [[15, 15], [15, 25], '2 ports changed in VLAN 15, none in VLAN 25'],
    [[15], [15], '1 port changed in VLAN 15'],
    [[35, 45], [15], 'no port changed in VLAN 15; 2 in 2 other trees'],
    [[15, 25, 35], [15, 25], '1 port changed in VLAN 15, 1 in VLAN 25; 1 in 1 other tree'],
  ])('%j seen from %j: %s', (ends, shown, text) =>
    expect(movedText({ ends: ends.map(end) }, shown.map(vlanTree))).toBe(text),
  );
});

it('looks for ways around only so long: then links run straight, between the sides that face each other', () => {
  const boxes = Array.from({ length: 120 }, (_, i) => around({ x: (i % 12) * 80, y: Math.floor(i / 12) * 60 }, 60, 40));
  const middle = (i: number) => ({ x: boxes[i]!.x + 30, y: boxes[i]!.y + 20 });
  const patient = new Detours(boxes);
  const hasty = new Detours(boxes, 0);
  const [one, two] = [14, 26];
  // Down along the edges of two boxes: bends lead clear of both.
  const [from, to] = [
    { x: 218, y: 20 },
    { x: 218, y: 200 },
  ];
  expect(patient.bends(from, to, [2, 38])).not.toEqual([]);
  hasty.sides(one, two); // the first is looked at: only then is it enough
  expect(hasty.sides(2, 38)).toEqual([facing(middle(2), middle(38)), facing(middle(38), middle(2))]);
  expect(hasty.bends(from, to, [2, 38])).toEqual([]);
});
