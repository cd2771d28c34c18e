'use client';
/** The map: switches that can be moved, links with strands between them. Panning and zooming are React Flow's, the drawing is ours. */
import { Panel, ReactFlow, ReactFlowProvider, ViewportPortal, type NodeChange } from '@xyflow/react';
import '@xyflow/react/dist/base.css';
import { useColorScheme } from '@mui/material/styles';
import { useCallback, useMemo, useState } from 'react';
import type { SwitchId } from '../../core/design/ids';
import { useWorkbench, useWorkbenchStore } from '../state/context';
import { boundsOf, layOutMap, positionsOf, type Box, type Line, type Point } from './geometry';
import { LinkView } from './LinkView';
import { MapFoot } from './MapFoot';
import styles from './map.module.css';
import { MovedBar } from './MovedBar';
import { SwitchNode, type SwitchNodeType } from './SwitchNode';
import { FIT } from './zoom';

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
  const design = useWorkbench((state) => state.design);
  const shown = useWorkbench((state) => (state.lens === 'Cable' ? 0 : state.shownTrees.length));
  const problem = useWorkbench((state) => state.problem);
  const [dragged, setDragged] = useState<ReadonlyMap<SwitchId, Point>>(new globalThis.Map());
  const { mode, systemMode } = useColorScheme();

  const geometry = useMemo(() => {
    const positions = positionsOf(design);
    dragged.forEach((point, id) => positions.set(id, point));
    return layOutMap(design, positions, { strands: shown });
  }, [design, dragged, shown]);
  const [keepBoxes] = useState(keeper<Box>);
  const [keepLines] = useState(keeper<Line>);
  const [keepNodes] = useState(nodeKeeper);
  const lines = useMemo(() => keepLines(geometry.lines), [keepLines, geometry]);
  const nodes = useMemo(() => keepNodes(keepBoxes(geometry.boxes)), [keepNodes, keepBoxes, geometry]);
  const speeds = useMemo(() => {
    const byPort = new globalThis.Map(design.switches.flatMap((sw) => sw.ports.map((port) => [JSON.stringify([sw.id, port.id]), port.speed] as const)));
    const at = (end: { switch: string; port: string }) => byPort.get(JSON.stringify([end.switch, end.port])) ?? 0;
    return design.links.map((link) => Math.max(at(link.a), at(link.b)));
  }, [design.switches, design.links]);

  const onNodesChange = useCallback(
    (changes: NodeChange<SwitchNodeType>[]) => {
      const moves = changes.flatMap((change) => (change.type === 'position' && change.position ? [change] : []));
      if (moves.length === 0) return;
      if (moves.some((move) => move.dragging)) {
        setDragged(new globalThis.Map(moves.map((move) => [move.id as SwitchId, move.position!])));
        return;
      }
      setDragged(new globalThis.Map());
      const to = moves.map(({ id, position }) => ({ switch: id as SwitchId, position: { x: Math.round(position!.x), y: Math.round(position!.y) } }));
      store.getState().act({ do: 'move-switches', to });
    },
    [store],
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
      onInit={(flow) => void flow.fitBounds(boundsOf(design, geometry), FIT)}
      minZoom={0.08}
      maxZoom={3}
      proOptions={{ hideAttribution: true }}
      aria-label="Map of the network"
    >
      <ViewportPortal>
        <svg className={styles.strands} aria-hidden="true">
          {design.links.map((link, i) => (
            <LinkView key={link.id} link={link} line={lines[i]!} speed={speeds[i]!} />
          ))}
        </svg>
      </ViewportPortal>
      <Panel position="top-left" className={styles.panelTop}>
        {problem ? <p className={styles.problem} role="alert">No trees to show: {problem}.</p> : <MovedBar />}
      </Panel>
      <Panel position="bottom-left" className={styles.panelFoot}>
        <MapFoot bounds={() => boundsOf(design, geometry)} />
      </Panel>
      {design.switches.length === 0 && <EmptyMap />}
    </ReactFlow>
  );
}

const NO_EDGES: never[] = [];
const CENTRED: [number, number] = [0.5, 0.5];

function EmptyMap() {
  return (
    <Panel position="top-center" className={styles.empty}>
      <h2>Nothing is plugged in yet</h2>
      <p>Add a first switch with “Add switch” in the Cable lens, then a second, and join their ports. Or import a .knot.json file from the list of designs.</p>
    </Panel>
  );
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
