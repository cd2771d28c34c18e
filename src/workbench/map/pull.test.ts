import type { PointerEvent as ReactPointerEvent } from 'react';
import { pull } from './pull';

const press = { clientX: 0, clientY: 0 } as ReactPointerEvent;
/** What is heard of a pull by ten pixels that ends so. */
function heard(last: Event): string[] {
  const told: string[] = [];
  pull(press, { move: () => told.push('move'), drop: () => told.push('drop'), end: () => told.push('end') });
  window.dispatchEvent(new MouseEvent('pointermove', { clientX: 10, clientY: 0 }));
  window.dispatchEvent(last);
  window.dispatchEvent(new MouseEvent('pointermove', { clientX: 20, clientY: 0 }));
  window.dispatchEvent(new MouseEvent('pointerup'));
  return told;
}

it.each([
  ['letting go', new MouseEvent('pointerup'), ['move', 'end', 'drop']],
  ['Escape', new KeyboardEvent('keydown', { key: 'Escape' }), ['move', 'end']],
  ['a pointer that is taken away', new MouseEvent('pointercancel'), ['move', 'end']],
])('a pull ends with %s, once, and drops only where it was let go', (_, last, told) => {
  expect(heard(last)).toEqual(told);
});
