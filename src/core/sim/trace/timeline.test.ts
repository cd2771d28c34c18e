import fc from 'fast-check';
import { OUTAGE_CAUSES, Reach, type OutageCause } from '../traffic/reach';
import { Timeline } from './timeline';
import { tries } from '../../testing/runs';

const changes = fc.array(fc.record({ wait: fc.nat(3), place: fc.nat(6), code: fc.nat(255) }), {
  maxLength: 1500,
  size: '+2',
});

describe('a timeline', () => {
  it('is the same after a journey as plain data', () => {
    fc.assert(
      fc.property(changes, fc.nat(3000), (all, instant) => {
        const there = new Timeline(new Uint8Array(7).fill(9));
        let t = 0;
        for (const { wait, place, code } of all) there.add((t += wait), place, code);
        const here = Timeline.from(structuredClone(there.data()));
        expect([here.count, here.until(instant)]).toEqual([there.count, there.until(instant)]);
        expect(here.pictureAt(instant)).toEqual(there.pictureAt(instant));
        for (let place = 0; place < 7; place += 1)
          expect(here.lastOf(place, instant)).toBe(there.lastOf(place, instant));
      }),
      { numRuns: tries(25) },
    );
  });
  it('knows what a place was before each change, and after', () => {
    fc.assert(
      fc.property(changes, (all) => {
        const timeline = new Timeline(new Uint8Array(7));
        const now = new Array<number>(7).fill(0);
        all.forEach(({ wait, place, code }, i) => {
          timeline.add(i * 4 + wait, place, code);
          expect([timeline.placeOf(i), timeline.before(i), timeline.after(i)]).toEqual([place, now[place], code]);
          now[place] = code;
        });
      }),
      { numRuns: tries(15) },
    );
  });
});

it('who reaches whom is known at any instant, with the reason', () => {
  const cause = fc.constantFrom<OutageCause | null>(null, ...OUTAGE_CAUSES);
  const pairs = ['a', 'b', 'c'].map((from) => ({ from, to: 'z', vlan: 1 }) as unknown as Reach['pairs'][number]);
  fc.assert(
    fc.property(
      fc.array(cause, { minLength: 3, maxLength: 3 }),
      fc.array(fc.record({ wait: fc.nat(5), pair: fc.nat(2), cause }), { maxLength: 60 }),
      fc.nat(200),
      (start, all, instant) => {
        const reach = new Reach(pairs, start);
        const now = [...start];
        let t = 0;
        for (const each of all) {
          t += each.wait;
          reach.add(t, each.pair, each.cause);
          if (t <= instant) now[each.pair] = each.cause;
        }
        expect(reach.causesAt(instant)).toEqual(now);
        expect(new Reach(pairs, reach.data()).causesAt(instant)).toEqual(now);
      },
    ),
  );
});
