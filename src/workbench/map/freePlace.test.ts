import fc from 'fast-check';
import { freePlace } from './freePlace';

const point = fc.record({ x: fc.integer({ min: -900, max: 900 }), y: fc.integer({ min: -900, max: 900 }) });

describe('a place for one more switch', () => {
  it('is the wish itself where nobody stands', () => expect(freePlace({ x: 3.4, y: 8 }, [])).toEqual({ x: 3, y: 8 }));

  it('is never where another stands, however many there are', () =>
    fc.assert(
      fc.property(point, fc.array(point, { maxLength: 80 }), (wish, others) => {
        const at = freePlace(wish, others);
        for (const other of others)
          expect(Math.abs(other.x - at.x) >= 190 || Math.abs(other.y - at.y) >= 120).toBe(true);
      }),
    ));

  it('gives several in a row places of their own', () => {
    const taken: { x: number; y: number }[] = [];
    for (let i = 0; i < 30; i += 1) taken.push(freePlace({ x: 0, y: 0 }, taken));
    expect(new Set(taken.map(({ x, y }) => `${x} ${y}`)).size).toBe(30);
  });
});
