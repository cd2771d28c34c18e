/** Lining up selected switches. */
import type { Command } from '../../core/edit/commands';
import type { SwitchId } from '../../core/model/ids';

/** A place on the map, in map units. */
export interface Point {
  readonly x: number;
  readonly y: number;
}

export type Alignment = 'row' | 'column' | 'spread-across' | 'spread-down';

/** Moves that line the switches up, by their places on the map; null where there is nothing to move. */
export function aligned(
  places: ReadonlyMap<SwitchId, Point>,
  ids: readonly SwitchId[],
  how: Alignment,
): Command | null {
  const items = ids.flatMap((id) => {
    const at = places.get(id);
    return at ? [{ id, at }] : [];
  });
  if (items.length < 2) return null;
  const axis = how === 'row' || how === 'spread-down' ? 'y' : 'x';
  const values = items.map(({ at }) => at[axis]);
  const [least, most] = [Math.min(...values), Math.max(...values)];
  const middle = Math.round(values.reduce((sum, value) => sum + value, 0) / values.length);
  const ordered = [...items].sort((a, b) => a.at[axis] - b.at[axis]);
  const value = (i: number): number =>
    how === 'row' || how === 'column' ? middle : Math.round(least + ((most - least) * i) / (items.length - 1));
  const to = ordered.map(({ id, at }, i) => ({ switch: id, position: { ...at, [axis]: value(i) } }));
  return to.some(({ switch: id, position }) => position[axis] !== places.get(id)![axis])
    ? { do: 'move-switches', to }
    : null;
}
