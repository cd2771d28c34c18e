/** What the map does for keys, buttons and the palette: zooming, bringing into view, tidy layout. */
import { useReactFlow, type Viewport } from '@xyflow/react';
import { useEffect, useRef } from 'react';
import type { SwitchId } from '../../core/model/ids';
import { treeOf } from '../../core/tree/settled';
import { timeText, useClockStore, type Clock } from '../state/clock';
import { useWorkbench, useWorkbenchStore } from '../state/context';
import { onScreen } from '../state/looking';
import type { Item } from '../state/selection';
import type { Workbench } from '../state/store';
import { levelsFrom } from '../../core/analysis/structure/blocks';
import { tidiedPlaces } from '../../core/analysis/structure/tidy';
import { islandRoots } from '../../core/tree/explain/election';
import { footHeight } from './MapFoot';
import type { MapLayoutState } from './useMapLayout';
import { fitted } from './zoom';

/** Hands the map's controls to the store, and follows what should be brought into view. */
export function useMapControls(
  map: MapLayoutState,
  setOwnView: (own: boolean) => void,
  setScale: (scale: number) => void,
): void {
  const store = useWorkbenchStore();
  const clock = useClockStore();
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
        if (!frame) return;
        const view = fitted(latest.current.bounds, { width: frame.width, height: frame.height, foot: footHeight() });
        setScale(view.zoom);
        void flow.setViewport(view);
      },
      tidy: (by) => tidy(store.getState(), by) && setOwnView(false),
      places: () => latest.current.everywhere(),
      drawn: () => {
        const frame = document.querySelector('.react-flow')?.getBoundingClientRect();
        const { x, y, zoom } = flow.getViewport();
        return frame
          ? {
              design: latest.current.design,
              places: latest.current.places,
              scale: zoom,
              view: { x: -x, y: -y, width: frame.width, height: frame.height - footHeight() - FOOT_EDGE },
              width: latest.current.bounds.width,
              instant: instantShown(store.getState(), clock.getState()),
            }
          : null;
      },
      middle: () => {
        const frame = document.querySelector('.react-flow')?.getBoundingClientRect();
        return frame
          ? latest.current.skeleton.opened(
              flow.screenToFlowPosition({ x: frame.x + frame.width / 2, y: frame.y + frame.height / 2 }),
            )
          : { x: 0, y: 0 };
      },
    });
    return () => setControls(null);
  }, [store, clock, flow, setOwnView, setScale]);

  const sight = useWorkbench((state) => state.sight);
  useEffect(() => {
    if (!sight) return;
    const frame = document.querySelector('.react-flow')?.getBoundingClientRect();
    if (!frame) return;
    if ('switches' in sight) {
      const view = viewOf(sight.switches, latest.current, frame);
      if (!view) return;
      setOwnView(true);
      setScale(view.zoom);
      void flow.setViewport(view);
      return;
    }
    const at = placeOf(sight.item, store.getState(), latest.current);
    if (!at) return;
    const { x, y } = flow.flowToScreenPosition(at);
    const rim = 70;
    const inside = x > frame.left + rim && x < frame.right - rim && y > frame.top + rim && y < frame.bottom - rim;
    const zoom = flow.getZoom();
    if (inside && zoom > 0.5) return;
    setOwnView(true);
    void flow.setCenter(at.x, at.y, { zoom: Math.max(zoom, 0.75), duration: 250 });
  }, [sight, store, flow, setOwnView, setScale]);
}

function instantShown(state: Workbench, { instant, picture, t, scenario: { name } }: Clock) {
  return onScreen(state, true) === 'instant' && instant && picture
    ? { picture, state: instant.state, isHeld: instant.isHeld, when: `at ${timeText(t)}${name ? ` of “${name}”` : ''}` }
    : null;
}

/** The view that shows some switches, as near as it must be to read them. */
function viewOf(switches: readonly SwitchId[], { places }: MapLayoutState, frame: DOMRect): Viewport | null {
  const points = switches.flatMap((id) => places.get(id) ?? []);
  if (points.length === 0) return null;
  const [xs, ys] = [points.map(({ x }) => x), points.map(({ y }) => y)];
  const [left, right, top, bottom] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const free = { width: frame.width - 2 * RIM.x, height: frame.height - 2 * RIM.y - footHeight() };
  const zoom = Math.max(
    READABLE,
    Math.min(1, free.width / Math.max(1, right - left), free.height / Math.max(1, bottom - top)),
  );
  return {
    x: frame.width / 2 - ((left + right) / 2) * zoom,
    // What is too high for the window begins at its top.
    y: RIM.y + Math.max(0, free.height - (bottom - top) * zoom) / 2 - top * zoom,
    zoom,
  };
}

/** Below the bar under the map. */
const FOOT_EDGE = 14;

/** Around switches that come into view, and the least zoom at which their names are read. */
const RIM = { x: 110, y: 56 } as const;
const READABLE = 0.34;

/** Where a thing is on the map. */
function placeOf(
  item: Item,
  { design }: Workbench,
  { places, skeleton }: MapLayoutState,
): { x: number; y: number } | null {
  switch (item.kind) {
    case 'switch':
    case 'port':
      return places.get(item.switch) ?? null;
    case 'link': {
      const link = skeleton.links.find(({ id }) => id === item.link);
      const [a, b] = [link && places.get(link.a.switch), link && places.get(link.b.switch)];
      return a && b ? { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 } : null;
    }
    case 'host': {
      const at = design.hosts.find((host) => host.id === item.host)?.attach[0];
      return at ? (places.get(at.switch) ?? null) : null;
    }
  }
}

/** Lays the map out by the structure of the network, or of a tree from its root, as one step, which can be undone; false where that changes nothing. */
function tidy(state: Workbench, by: 'tier' | 'root'): boolean {
  const { design, solution, shownTrees, setLayout, act } = state;
  const tree = solution && shownTrees[0] ? treeOf(solution, shownTrees[0]) : undefined;
  const root = by === 'root' && solution && tree ? islandRoots(solution.network, tree)[0] : undefined;
  const levels = root === undefined ? undefined : levelsFrom(design, [solution!.network.switches[root]!.id]);
  const to = [...tidiedPlaces(design, levels)].map(([id, position]) => ({ switch: id, position }));
  setLayout('placed');
  return to.length > 0 && act({ do: 'move-switches', to }) === null;
}
