'use client';
/** The map: switches that can be moved, links with strands between them. Panning and zooming are React Flow's, the drawing is ours. */
import { means } from '../ui/means';
import {
  Panel,
  ReactFlow,
  ReactFlowProvider,
  ViewportPortal,
  useReactFlow,
  useStore,
  type NodeChange,
} from '@xyflow/react';
import '@xyflow/react/dist/base.css';
import { useColorScheme } from '@mui/material/styles';
import { useCallback, useEffect, useMemo, useRef, useState, type ComponentType, type MouseEvent } from 'react';
import type { SwitchId } from '../../core/model/ids';
import { useWorkbench, useWorkbenchStore } from '../state/context';
import { selectionOf, switchesIn, type Item } from '../state/selection';
import { AddSwitch, EmptyMap } from './AddSwitch';
import { Bands } from './Bands';
import { CableDragProvider, useCableHand } from './cableDrag';
import { placesAfterDrop } from './dropped';
import { FrayDragProvider, useFrayHand } from './frayDrag';
import { FocusBar } from './FocusBar';
import { HeldCable } from './HeldCable';
import type { Filled } from '../../core/analysis/groups/groups';
import type { FoldedSkeleton } from './folded';
import { positionsOf, type Box, type LayerProps } from './geometry';
import { KeptProvider, NOTHING_KEPT } from './kept';
import { footHeight, MapFoot } from './MapFoot';
import styles from './map.module.css';
import { MovedBar } from './MovedBar';
import { Overview } from './Overview';
import { Strands } from './Strands';
import { GroupNode, type GroupNodeType } from './GroupNode';
import { GroupOutlines } from './GroupOutlines';
import { PairYokes } from './PairYokes';
import { Rides } from './Rides';
import { SwitchNode, type SwitchNodeType } from './SwitchNode';
import { useMapControls } from './useMapControls';
import { useMapLayout, type Drag } from './useMapLayout';
import { useTravel } from './useTravel';
import { ScaleProvider, useZoomScale } from './scale';
import { isMany, ManyProvider } from './seen';
import { ZOOM, fitted } from './zoom';
import { mayEdit } from '../state/looking';
import { MAP_ROOM } from '../state/mapRoom';

const nodeTypes = { switch: SwitchNode, folded: GroupNode };
type MapNode = SwitchNodeType | GroupNodeType;

/** Layers of the open lens: drawn under the switches and links, and over them. */
interface OfLens {
  readonly Under?: ComponentType<LayerProps> | undefined;
  readonly Over?: ComponentType<LayerProps> | undefined;
  /** What they draw, for the legend. */
  readonly Signs?: ComponentType | undefined;
}

export function MapView(layers: OfLens) {
  return (
    <ReactFlowProvider>
      <Map {...layers} />
    </ReactFlowProvider>
  );
}

function Map({ Under, Over, Signs }: OfLens) {
  const store = useWorkbenchStore();
  const { setViewport } = useReactFlow();
  const problem = useWorkbench((state) => state.problem);
  const movable = useWorkbench((state) => state.layout === 'placed' && mayEdit(state));
  const cabling = useWorkbench((state) => state.lens === 'Cable');
  // Where switches are while they are dragged, and after the drop until the design says the same: it holds over one skeleton only.
  const [drag, setDrag] = useState<Drag | null>(null);
  const { mode, systemMode } = useColorScheme();
  const [scale, setScale] = useZoomScale();
  const map = useMapLayout(drag, scale);
  const { skeleton, bounds, unfolded } = map;
  const [keepNodes] = useState(nodeKeeper);
  const chosen = useWorkbench((state) => switchesIn(state.selection).join('\n'));
  const nodes = useMemo(
    () => keepNodes(map.boxes, skeleton.groups, new Set(chosen.split('\n')), scale),
    [keepNodes, map.boxes, skeleton, chosen, scale],
  );
  const [kept, setKept] = useState(NOTHING_KEPT);
  const hand = useCableHand(skeleton.opened);
  const frayHand = useFrayHand();
  /** While a frame is drawn with Shift, React Flow tells which switches it touches. */
  const framing = useRef(false);
  const room = useRef<HTMLDivElement>(null);

  // Until someone moves the view by hand, the whole map stays in it; what was seen of one layout or part means nothing in another.
  const layout = useWorkbench((state) => state.layout);
  const [ownView, setOwnView] = useState(false);
  const focus = useWorkbench((state) => state.focus);
  const [seenIn, setSeenIn] = useState({ layout, focus });
  if (seenIn.layout !== layout || seenIn.focus !== focus) {
    setSeenIn({ layout, focus });
    setOwnView(false);
  }
  const frameWidth = useStore((state) => state.width);
  const frameHeight = useStore((state) => state.height);
  useEffect(() => {
    if (ownView || frameWidth === 0) return;
    const view = fitted(bounds, { width: frameWidth, height: frameHeight, foot: footHeight() });
    setScale(view.zoom);
    void setViewport(view);
  }, [ownView, setViewport, setScale, bounds, frameWidth, frameHeight]);
  useMapControls(map, setOwnView, setScale);
  const onArrow = useTravel(map.geometry, skeleton);

  const onNodesChange = useCallback(
    (changes: NodeChange<MapNode>[]) => {
      const inside = (box: string): readonly SwitchId[] =>
        skeleton.groups.get(box as SwitchId)?.switches ?? [box as SwitchId];
      if (framing.current) {
        const chosen = new Set(switchesIn(store.getState().selection));
        for (const change of changes) {
          if (change.type !== 'select') continue;
          for (const id of inside(change.id))
            if (change.selected) chosen.add(id);
            else chosen.delete(id);
        }
        store.getState().select(selectionOf([...chosen].map((id): Item => ({ kind: 'switch', switch: id }))));
      }
      const moves = changes.flatMap((change) => (change.type === 'position' && change.position ? [change] : []));
      if (moves.length === 0) return;
      if (moves.some((move) => move.dragging)) {
        setOwnView(true); // the map must not move under the hand
        setDrag({ over: skeleton, at: new globalThis.Map(moves.map((move) => [move.id as SwitchId, move.position!])) });
        return;
      }
      const to = new globalThis.Map(moves.map(({ id, position }) => [id as SwitchId, position!]));
      store
        .getState()
        .act({ do: 'move-switches', to: placesAfterDrop(skeleton, positionsOf(skeleton), unfolded(), to) });
    },
    [store, skeleton, unfolded],
  );
  /** What a pointer does to boxes: the same functions as long as groups fold the same, or every box is drawn again. */
  const handlers = useMemo(() => {
    /** Selects a switch, or all that is in a folded group. */
    const choose = (box: string, how: 'alone' | 'more'): void => {
      const { pick, select } = store.getState();
      const items = (skeleton.groups.get(box as SwitchId)?.switches ?? [box as SwitchId]).map((id): Item => ({
        kind: 'switch',
        switch: id,
      }));
      if (how === 'alone') select(selectionOf(items));
      else for (const item of items) pick(item, 'more');
    };
    return {
      onNodeClick: (event: MouseEvent, node: MapNode) => choose(node.id, means(event)),
      onNodeDragStart: (_: unknown, node: MapNode) => {
        if (!node.selected) choose(node.id, 'alone');
      },
      onPaneClick: () => store.getState().select(null),
      onSelectionStart: () => {
        framing.current = true;
      },
      onSelectionEnd: () => {
        framing.current = false;
      },
      onMoveStart: (event: globalThis.MouseEvent | TouchEvent | null) => {
        if (event?.type !== 'wheel') room.current?.setAttribute('data-moving', '');
      },
      // A click is no move.
      onMove: (event: globalThis.MouseEvent | TouchEvent | null) => event && setOwnView(true),
      onMoveEnd: () => room.current?.removeAttribute('data-moving'),
    };
  }, [store, skeleton]);
  return (
    <ScaleProvider value={scale}>
      <ManyProvider value={isMany(skeleton.links.length)}>
        <CableDragProvider value={hand}>
          <FrayDragProvider value={frayHand.start}>
            <div
              ref={room}
              id={MAP_ROOM}
              className={styles.room}
              tabIndex={0}
              role="application"
              aria-label="Map of the network. Arrow keys travel from switch to port to far end."
              onKeyDown={onArrow}
            >
              <ReactFlow
                className={styles.flow}
                colorMode={(mode === 'system' ? systemMode : mode) === 'dark' ? 'dark' : 'light'}
                nodes={nodes}
                edges={NO_EDGES}
                nodeTypes={nodeTypes}
                nodeOrigin={CENTRED}
                onNodesChange={onNodesChange}
                {...handlers}
                nodesDraggable={movable}
                nodesConnectable={false}
                elementsSelectable
                selectNodesOnDrag={false}
                nodesFocusable={false}
                disableKeyboardA11y
                deleteKeyCode={null}
                onlyRenderVisibleElements
                minZoom={ZOOM.least}
                maxZoom={ZOOM.most}
                proOptions={PLAIN}
              >
                <ViewportPortal>
                  <Bands bands={map.bands} bounds={bounds} />
                  <KeptProvider value={setKept}>{Under && <Under boxes={map.boxes} lines={map.lines} />}</KeptProvider>
                  <GroupOutlines outlines={map.outlines} />
                  <PairYokes boxes={map.boxes} />
                  <Rides lines={map.lines} />
                  <Strands
                    skeleton={skeleton}
                    lines={map.lines}
                    boxes={map.boxes}
                    outlines={map.outlines}
                    kept={kept}
                  />
                  {Over && <Over boxes={map.boxes} lines={map.lines} />}
                  <HeldCable held={hand.held ?? frayHand.held} />
                </ViewportPortal>
                <Panel position="top-left" className={styles.panelTop}>
                  {problem ? (
                    <p className={styles.problem} role="alert">
                      No trees to show: {problem}.
                    </p>
                  ) : (
                    <MovedBar />
                  )}
                  <FocusBar />
                </Panel>
                <Panel position="bottom-left" className={styles.panelFoot}>
                  <MapFoot Signs={Signs} />
                </Panel>
                <Overview bounds={bounds} />
                {cabling && movable && <AddSwitch />}
                {skeleton.switches.length === 0 && <EmptyMap />}
              </ReactFlow>
            </div>
          </FrayDragProvider>
        </CableDragProvider>
      </ManyProvider>
    </ScaleProvider>
  );
}

const NO_EDGES: never[] = [];
const PLAIN = { hideAttribution: true };
const CENTRED: [number, number] = [0.5, 0.5];

/** Keeps the node of each box that has not changed, selected or not. */
function nodeKeeper(): (
  boxes: readonly Box[],
  groups: FoldedSkeleton['groups'],
  selected: ReadonlySet<string>,
  scale: number,
) => MapNode[] {
  let before = new globalThis.Map<Box, MapNode>();
  let last = 0;
  return (boxes, groups, selected, scale) => {
    if (scale !== last) before.clear();
    last = scale;
    before = new globalThis.Map(
      boxes.map((box) => {
        const old = before.get(box);
        const filled = groups.get(box.id);
        const chosen = filled ? filled.switches.every((id) => selected.has(id)) : selected.has(box.id);
        const same = old && old.selected === chosen && (old.type === 'folded' ? old.data.filled === filled : !filled);
        return [box, same ? old : nodeOf(box, filled, chosen, scale)];
      }),
    );
    return [...before.values()];
  };
}

function nodeOf(box: Box, filled: Filled | undefined, selected: boolean, scale: number): MapNode {
  const about = {
    id: box.id,
    position: { x: box.centre.x / scale, y: box.centre.y / scale },
    width: box.width / scale,
    height: box.height / scale,
    selected,
  };
  return filled ? { ...about, type: 'folded', data: { box, filled } } : { ...about, type: 'switch', data: { box } };
}
