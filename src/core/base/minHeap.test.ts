import * as fc from 'fast-check';
import { MinHeap } from './minHeap';

const drained = (heap: MinHeap): number[] => {
  const out: number[] = [];
  while (heap.size > 0) out.push(heap.pop());
  return out;
};

it('gives items by key, of equal keys by tie, however they were put in', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.nat(20), fc.nat(5)), { maxLength: 300 }), (pairs) => {
      const heap = new MinHeap();
      pairs.forEach(([key, tie], item) => heap.push(key, item, tie));
      expect(heap.size).toBe(pairs.length);
      const order = drained(heap).map((item) => pairs[item]!);
      expect(order).toEqual([...pairs].sort(([a, s], [b, t]) => a - b || s - t));
    }),
  );
});

it('stays in order while items come and go', () => {
  fc.assert(
    fc.property(fc.array(fc.option(fc.nat(50), { nil: null }), { maxLength: 300 }), (steps) => {
      const heap = new MinHeap();
      const held: number[] = [];
      for (const step of steps) {
        if (step !== null) {
          heap.push(step, step);
          held.push(step);
          held.sort((a, b) => a - b);
        } else expect(heap.pop()).toBe(held.shift() ?? -1);
        expect(heap.size).toBe(held.length);
      }
    }),
  );
});

it('gives -1 when it is empty, and takes items again', () => {
  const heap = new MinHeap();
  expect(heap.pop()).toBe(-1);
  heap.push(1, 7);
  expect([heap.pop(), heap.pop(), heap.size]).toEqual([7, -1, 0]);
});
