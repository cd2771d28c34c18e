/** Arrow keys on the map. A folded group is one box on the way. */
import { useCallback, type KeyboardEvent } from 'react';
import type { SwitchId } from '../../core/model/ids';
import { useWorkbenchStore } from '../state/context';
import { itemsOf, selectionOf, type Item, type Selection } from '../state/selection';
import { isSheafEnd, type FoldedSkeleton } from './folded';
import type { MapGeometry } from './geometry';
import { travel, type Direction } from './travel';

const ARROWS: Readonly<Record<string, Direction>> = {
  ArrowUp: 'up',
  ArrowDown: 'down',
  ArrowLeft: 'left',
  ArrowRight: 'right',
};

export function useTravel(geometry: MapGeometry, skeleton: FoldedSkeleton): (event: KeyboardEvent) => void {
  const store = useWorkbenchStore();
  return useCallback(
    (event) => {
      const direction = ARROWS[event.key];
      if (
        !direction ||
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        (event.target as HTMLElement).closest('input, textarea, select')
      )
        return;
      event.preventDefault();
      const { selection, goTo, select } = store.getState();
      const next = stepOver(geometry, skeleton, selection, direction);
      if (next?.kind === 'several') select(next);
      else if (next) goTo(next);
    },
    [store, geometry, skeleton],
  );
}

/** Where an arrow leads: to a thing, or to all that is in a folded group; null where nothing lies that way. */
export function stepOver(
  geometry: MapGeometry,
  { links, groups }: FoldedSkeleton,
  selection: Selection | null,
  direction: Direction,
): Selection | null {
  const boxes = new Map([...groups].flatMap(([box, { switches }]) => switches.map((id) => [id, box] as const)));
  const last = itemsOf(selection).at(-1);
  const box = last && 'switch' in last ? boxes.get(last.switch) : undefined;
  const from: Item | null = box ? { kind: 'switch', switch: box } : (last ?? null);
  let next = travel(geometry, links, from, direction);
  // An end of a sheaf is none to stop at: on to what it leads to.
  if (next?.kind === 'port' && isSheafEnd(next.port) && !groups.has(next.switch))
    next = travel(geometry, links, next, direction);
  if (next === null || !('switch' in next)) return next;
  const inside = groups.get(next.switch);
  if (!inside) return next;
  if (next.kind === 'port' && from?.kind === 'switch' && from.switch === next.switch) {
    // Out of a group by one of its sheaves.
    const { port } = next;
    const isHere = (end: { readonly switch: SwitchId; readonly port: string }): boolean =>
      end.switch === from.switch && end.port === port;
    const way = links.find(({ a, b }) => isHere(a) || isHere(b));
    return way ? boxSelection(isHere(way.a) ? way.b.switch : way.a.switch) : null;
  }
  return boxSelection(next.switch);

  function boxSelection(id: SwitchId): Selection | null {
    return selectionOf((groups.get(id)?.switches ?? [id]).map((each): Item => ({ kind: 'switch', switch: each })));
  }
}
