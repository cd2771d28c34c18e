import fc from 'fast-check';
import type { Box, Line } from '../geometry';
import { crosses } from '../facing';
import { plainBox, plainLine } from '../testing';
import { placeNames } from './shadeNames';

const box = (id: string, x: number, y: number, hostSide?: Box['hostSide']): Box => plainBox(id, { x, y }, hostSide);
const line = (from: Box, to: Box): Line => plainLine(`${from.id}-${to.id}`, from.centre, to.centre);

describe('the name of a shade', () => {
  it('stands above its topmost switch where nothing is in the way', () => {
    const [a, b] = [box('a', 0, 0), box('b', 0, 300)];
    const [at] = placeNames([{ label: 'A. NORTH', boxes: [a, b] }], [a, b], [line(a, b)], 15, 15);
    expect(at!.y + at!.height).toBeLessThan(-20 - 15);
    expect(at!.x).toBe(-50);
  });

  it('gives way to boxes and to names that stand there', () => {
    const boxes = fc
      .array(fc.record({ x: fc.integer({ min: 0, max: 6 }), y: fc.integer({ min: 0, max: 6 }), top: fc.boolean() }), {
        minLength: 2,
        maxLength: 12,
      })
      .map((places) =>
        [...new Map(places.map((place) => [`${place.x} ${place.y}`, place])).values()].map(({ x, y, top }, i) =>
          box(`s${i}`, 400 * x, 400 * y, top ? 'top' : 'bottom'),
        ),
      );
    fc.assert(
      fc.property(boxes, fc.nat(11), (all, cut) => {
        // Switches that stand well apart leave room for two names.
        const named = [all.slice(0, cut + 1), all.slice(cut + 1)]
          .filter((own) => own.length > 0)
          .map((own, i) => ({ label: `${i}. REGION, rev. 1`, boxes: own }));
        const placed = placeNames(named, all, [], 15, 15);
        for (const [i, a] of placed.entries()) {
          for (const b of [
            ...placed.slice(0, i),
            ...all.map(({ centre, width, height }) => ({
              x: centre.x - width / 2,
              y: centre.y - height / 2,
              width,
              height,
            })),
          ]) {
            expect(a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height).toBe(
              false,
            );
          }
          const left = Math.min(...all.map(({ centre }) => centre.x)) - 65;
          expect(a.x).toBeGreaterThanOrEqual(left);
        }
      }),
    );
  });

  it('takes the place that no link passes', () => {
    const [a, b, above] = [box('a', 0, 0), box('b', 600, 0), box('above', 0, -400)];
    const [at] = placeNames([{ label: 'A. NORTH', boxes: [a] }], [a, b, above], [line(above, a)], 15, 15);
    expect(crosses(line(above, a), at!)).toBe(false);
  });
});

it('tells lines that pass through a rectangle from those that do not', () => {
  const within = { x: 0, y: 0, width: 10, height: 10 };
  const from = (x: number, y: number, p: number, q: number) => ({ from: { x, y }, to: { x: p, y: q } });
  expect(
    [from(-5, 5, 15, 5), from(5, 5, 6, 6), from(-1, -1, 11, 11), from(5, -5, 5, 50)].map((each) =>
      crosses(each, within),
    ),
  ).toEqual([true, true, true, true]);
  expect(
    [from(-5, 11, 15, 11), from(-5, 5, -1, 5), from(0, 21, 21, 0), from(11, -5, 11, 50)].map((each) =>
      crosses(each, within),
    ),
  ).toEqual([false, false, false, false]);
});
