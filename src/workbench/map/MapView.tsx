'use client';
/** The map: switches that can be moved, links with strands between them. Panning and zooming are React Flow's, the drawing is ours. */
import { Panel, ReactFlow, ReactFlowProvider, ViewportPortal, useReactFlow, useStore, type NodeChange } from '@xyflow/react';
import '@xyflow/react/dist/base.css';
import Button from '@mui/material/Button';
import { useColorScheme } from '@mui/material/styles';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { freshSwitch } from '../../core/design/fresh';
import type { SwitchId } from '../../core/design/ids';
import type { Design } from '../../core/design/schema';
import { TextButton } from '../frame/TextButton';
import { useWorkbench, useWorkbenchStore } from '../state/context';
import { boundsOf, layOutMap, positionsOf, skeletonOf, type Box, type Line, type Point, type Skeleton } from './geometry';
import { MapFoot } from './MapFoot';
import styles from './map.module.css';
import { MovedBar } from './MovedBar';
import { Strands } from './Strands';
import { SwitchNode, type SwitchNodeType } from './SwitchNode';
import { FIT } from './zoom';

/** Switches held by the pointer, and the skeleton whose positions they leave for the time. */
interface Drag {
  readonly over: Skeleton;
  readonly at: ReadonlyMap<SwitchId, Point>;
}

const nodeTypes = { switch: SwitchNode };

export function MapView() {
  return (
    <ReactFlowProvider>
      <Map />
    </ReactFlowProvider>
  );
}

function Map() {
  const store = useWorkbenchStore();
  const { fitBounds } = useReactFlow();
  const [keepSkeleton] = useState(skeletonKeeper);
  const skeleton = useWorkbench((state) => keepSkeleton(state.design));
  const shown = useWorkbench((state) => (state.lens === 'Cable' ? 0 : state.shownTrees.length));
  const problem = useWorkbench((state) => state.problem);
  // Where switches are while they are dragged, and after the drop until the design says the same: it holds over one skeleton only.
  const [drag, setDrag] = useState<Drag | null>(null);
  const { mode, systemMode } = useColorScheme();

  const geometry = useMemo(() => {
    const positions = positionsOf(skeleton);
    if (drag?.over === skeleton) drag.at.forEach((point, id) => positions.set(id, point));
    return layOutMap(skeleton, positions, { strands: shown });
  }, [skeleton, drag, shown]);
  const [keepBoxes] = useState(keeper<Box>);
  const [keepLines] = useState(keeper<Line>);
  const [keepNodes] = useState(nodeKeeper);
  const lines = useMemo(() => keepLines(geometry.lines), [keepLines, geometry]);
  const nodes = useMemo(() => keepNodes(keepBoxes(geometry.boxes)), [keepNodes, keepBoxes, geometry]);

  // Until someone moves the view by hand, the whole map stays in it.
  const [ownView, setOwnView] = useState(false);
  const { x, y, width, height } = boundsOf(skeleton, geometry);
  const frameWidth = useStore((state) => state.width);
  const frameHeight = useStore((state) => state.height);
  useEffect(() => {
    if (!ownView) void fitBounds({ x, y, width, height }, FIT);
  }, [ownView, fitBounds, x, y, width, height, frameWidth, frameHeight]);

  const onNodesChange = useCallback(
    (changes: NodeChange<SwitchNodeType>[]) => {
      const moves = changes.flatMap((change) => (change.type === 'position' && change.position ? [change] : []));
      if (moves.length === 0) return;
      if (moves.some((move) => move.dragging)) {
        setOwnView(true); // the map must not move under the hand
        setDrag({ over: skeleton, at: new globalThis.Map(moves.map((move) => [move.id as SwitchId, move.position!])) });
        return;
      }
      const to = moves.map(({ id, position }) => ({ switch: id as SwitchId, position: { x: Math.round(position!.x), y: Math.round(position!.y) } }));
      store.getState().act({ do: 'move-switches', to });
    },
    [store, skeleton],
  );

  return (
    <ReactFlow
      className={styles.flow}
      colorMode={(mode === 'system' ? systemMode : mode) === 'dark' ? 'dark' : 'light'}
      nodes={nodes}
      edges={NO_EDGES}
      nodeTypes={nodeTypes}
      nodeOrigin={CENTRED}
      onNodesChange={onNodesChange}
      onNodeClick={(_, node) => store.getState().select({ kind: 'switch', switch: node.id as SwitchId })}
      onPaneClick={() => store.getState().select(null)}
      nodesConnectable={false}
      elementsSelectable={false}
      nodesFocusable={false}
      deleteKeyCode={null}
      onlyRenderVisibleElements
      onInit={(flow) => void flow.fitBounds(boundsOf(skeleton, geometry), FIT)}
      onMoveStart={(event) => event && setOwnView(true)}
      minZoom={0.08}
      maxZoom={3}
      proOptions={{ hideAttribution: true }}
      aria-label="Map of the network"
    >
      <ViewportPortal>
        <Strands links={skeleton.links} lines={lines} />
      </ViewportPortal>
      <Panel position="top-left" className={styles.panelTop}>
        {problem ? <p className={styles.problem} role="alert">No trees to show: {problem}.</p> : <MovedBar />}
      </Panel>
      <Panel position="bottom-left" className={styles.panelFoot}>
        <MapFoot bounds={() => boundsOf(skeleton, geometry)} onView={setOwnView} />
      </Panel>
      <AddSwitch />
      {skeleton.switches.length === 0 && <EmptyMap />}
    </ReactFlow>
  );
}

const NO_EDGES: never[] = [];
const CENTRED: [number, number] = [0.5, 0.5];

/** In the Cable lens: a new switch in the middle of what is seen. */
function AddSwitch() {
  const store = useWorkbenchStore();
  const cabling = useWorkbench((state) => state.lens === 'Cable');
  const flow = useReactFlow();
  if (!cabling) return null;
  const add = () => {
    const frame = document.querySelector('.react-flow')?.getBoundingClientRect();
    const middle = frame ? flow.screenToFlowPosition({ x: frame.x + frame.width / 2, y: frame.y + frame.height / 2 }) : { x: 0, y: 0 };
    const { design, act, select } = store.getState();
    // Several in a row step aside, so that none hides another.
    const step = (design.switches.length % 6) * 36;
    const { id, command } = freshSwitch(design, { x: Math.round(middle.x) + step, y: Math.round(middle.y) + step });
    if (act(command) === null) select({ kind: 'switch', switch: id });
  };
  return (
    <Panel position="top-right" className={styles.panelAdd}>
      <Button variant="outlined" onClick={add}>Add switch</Button>
    </Panel>
  );
}

function EmptyMap() {
  const setLens = useWorkbench((state) => state.setLens);
  return (
    <Panel position="top-center" className={styles.empty}>
      <h2>Nothing is plugged in yet</h2>
      <p>In the <TextButton onClick={() => setLens('Cable')}>Cable lens</TextButton>, “Add switch” places the first; “Cable to” in the panel on the right joins it to the next. Or import a .knot.json file from the list of designs.</p>
    </Panel>
  );
}

/** Keeps the skeleton while edits leave it alone. */
function skeletonKeeper(): (design: Design) => Skeleton {
  let before: Skeleton | null = null;
  return (design) => (before = skeletonOf(design, before));
}

/** Keeps the identity of items that are equal to those of the last time, so that what draws them can skip them. */
function keeper<T extends Box | Line>(): (items: readonly T[]) => readonly T[] {
  let before: readonly T[] = [];
  return (items) => (before = items.map((item, i) => (before[i] && JSON.stringify(before[i]) === JSON.stringify(item) ? before[i] : item)));
}

/** Keeps the node of each box that has not changed. */
function nodeKeeper(): (boxes: readonly Box[]) => SwitchNodeType[] {
  let before = new globalThis.Map<Box, SwitchNodeType>();
  return (boxes) => {
    before = new globalThis.Map(boxes.map((box) => [box, before.get(box) ?? nodeOf(box)]));
    return [...before.values()];
  };
}

const nodeOf = (box: Box): SwitchNodeType => ({
  id: box.id, type: 'switch', position: box.centre, data: { box }, width: box.width, height: box.height,
});
