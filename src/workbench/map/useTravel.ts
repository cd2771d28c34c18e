/** Arrow keys on the map. */
import { useCallback, type KeyboardEvent } from 'react';
import { useWorkbenchStore } from '../state/context';
import type { MapGeometry } from './geometry';
import { travel, type Direction } from './travel';

const ARROWS: Readonly<Record<string, Direction>> = {
  ArrowUp: 'up',
  ArrowDown: 'down',
  ArrowLeft: 'left',
  ArrowRight: 'right',
};

export function useTravel(geometry: MapGeometry): (event: KeyboardEvent) => void {
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
      const { design, selection, goTo } = store.getState();
      const next = travel(geometry, design.links, selection, direction);
      if (next) goTo(next);
    },
    [store, geometry],
  );
}
