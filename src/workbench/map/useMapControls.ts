/** What the map does for keys, buttons and the palette: zooming, bringing into view, tidy layout. */
import { useReactFlow } from '@xyflow/react';
import { useEffect, useRef } from 'react';
import type { SwitchId } from '../../core/model/ids';
import { treeOf } from '../../core/tree/settled';
import { useWorkbench, useWorkbenchStore } from '../state/context';
import type { Item } from '../state/selection';
import type { Workbench } from '../state/store';
import { startElk } from './elk';
import { rowsByRoot, rowsByTier, tidyPlaces } from './tidy';
import type { MapLayoutState } from './useMapLayout';
import { fitted } from './zoom';

/** Hands the map's controls to the store, and follows what should be brought into view. */
export function useMapControls(map: MapLayoutState, setOwnView: (own: boolean) => void): void {
  const store = useWorkbenchStore();
  const flow = useReactFlow();
  const latest = useRef(map);
  useEffect(() => {
    latest.current = map;
  });
  useEffect(() => {
    const { setControls } = store.getState();
    const own = (go: () => void) => () => {
      setOwnView(true);
      go();
    };
    setControls({
      closer: own(() => void flow.zoomIn()),
      farther: own(() => void flow.zoomOut()),
      whole: () => {
        const frame = document.querySelector('.react-flow')?.getBoundingClientRect();
        setOwnView(false);
        if (frame) void flow.setViewport(fitted(latest.current.bounds, frame));
      },
      tidy: (by) => void tidy(store.getState, by).then((done) => done && setOwnView(false)),
      places: () => latest.current.places,
      middle: () => {
        const frame = document.querySelector('.react-flow')?.getBoundingClientRect();
        return frame
          ? flow.screenToFlowPosition({ x: frame.x + frame.width / 2, y: frame.y + frame.height / 2 })
          : { x: 0, y: 0 };
      },
    });
    return () => setControls(null);
  }, [store, flow, setOwnView]);

  const sight = useWorkbench((state) => state.sight);
  useEffect(() => {
    if (!sight) return;
    const at = placeOf(sight.item, store.getState(), latest.current);
    const frame = document.querySelector('.react-flow')?.getBoundingClientRect();
    if (!at || !frame) return;
    const { x, y } = flow.flowToScreenPosition(at);
    const rim = 70;
    const inside = x > frame.left + rim && x < frame.right - rim && y > frame.top + rim && y < frame.bottom - rim;
    const zoom = flow.getZoom();
    if (inside && zoom > 0.5) return;
    setOwnView(true);
    void flow.setCenter(at.x, at.y, { zoom: Math.max(zoom, 0.75), duration: 250 });
  }, [sight, store, flow, setOwnView]);
}

/** Where a thing is on the map. */
function placeOf(
  item: Item,
  { design }: Workbench,
  { places, skeleton, lines }: MapLayoutState,
): { x: number; y: number } | null {
  switch (item.kind) {
    case 'switch':
    case 'port':
      return places.get(item.switch) ?? null;
    case 'link': {
      const line = lines[skeleton.links.findIndex((link) => link.id === item.link)];
      return line ? { x: (line.from.x + line.to.x) / 2, y: (line.from.y + line.to.y) / 2 } : null;
    }
    case 'host': {
      const at = design.hosts.find((host) => host.id === item.host)?.attach[0];
      return at ? (places.get(at.switch) ?? null) : null;
    }
  }
}

/** Lays the map out in rows as one step that can be taken back; false where it was stopped or changed nothing. */
async function tidy(get: () => Workbench, by: 'tier' | 'root'): Promise<boolean> {
  const { design, solution, shownTrees, setBusy, busy } = get();
  if (busy || design.switches.length === 0) return false;
  const tree = solution && shownTrees[0] ? treeOf(solution, shownTrees[0]) : undefined;
  const rowOf = by === 'root' && solution && tree ? rowsByRoot(solution, tree) : rowsByTier(design);
  const { elk, stop } = startElk();
  let stopped = false as boolean;
  const cancelled = new Promise<null>((resolve) => {
    setBusy({
      what: `Laying out ${design.switches.length} switches`,
      cancel: () => {
        stopped = true;
        resolve(null);
      },
    });
  });
  try {
    const places = await Promise.race([tidyPlaces(elk, design, rowOf), cancelled]);
    if (!places || stopped) return false;
    const now = get().design;
    const to = now.switches.flatMap(({ id }) => {
      const position = places.get(id as SwitchId);
      return position ? [{ switch: id, position }] : [];
    });
    get().setLayout('placed');
    return get().act({ do: 'move-switches', to }) === null;
  } finally {
    get().setBusy(null);
    stop();
  }
}
