/** What the map draws where: the design's skeleton laid out as placed or hung from the root, dragged switches under the hand. */
import { useMemo, useState } from 'react';
import type { SwitchId } from '../../core/model/ids';
import type { Design } from '../../core/model/document';
import { treeOf } from '../../core/tree/settled';
import { useWorkbench } from '../state/context';
import {
  boundsOf,
  layOutMap,
  positionsOf,
  skeletonOf,
  type Box,
  type Line,
  type MapGeometry,
  type Point,
  type Skeleton,
} from './geometry';
import { hungFromRoot, type Band } from './hung';
import { useMapDesign } from './mapDesign';
import { useMotion, type Places } from './motion';

/** Switches held by the pointer, and the skeleton whose positions they leave for the time. */
export interface Drag {
  readonly over: Skeleton;
  readonly at: ReadonlyMap<SwitchId, Point>;
}

export interface MapLayoutState {
  readonly skeleton: Skeleton;
  readonly geometry: MapGeometry;
  readonly places: Places;
  readonly boxes: readonly Box[];
  readonly lines: readonly Line[];
  /** Empty unless the map hangs from a root. */
  readonly bands: readonly Band[];
  readonly bounds: ReturnType<typeof boundsOf>;
}

/** Room at the left of hanging switches for what each band costs. */
const BAND_LABEL = 170;
/** Room around switches for the outlines of regions; their names stand above. */
const REGION_EDGE = 22;

export function useMapLayout(drag: Drag | null): MapLayoutState {
  const [keepSkeleton] = useState(skeletonKeeper);
  const design = useMapDesign();
  const skeleton = useMemo(() => keepSkeleton(design), [keepSkeleton, design]);
  const shown = useWorkbench((state) => (state.lens === 'Cable' ? 0 : state.shownTrees.length));
  const grouping = useWorkbench((state) => state.lens === 'Group');
  const hanging = useWorkbench((state) => state.layout === 'hung');
  const solution = useWorkbench((state) => (state.layout === 'hung' ? state.solution : null));
  const treeId = useWorkbench((state) => state.shownTrees[0] ?? null);

  const hung = useMemo(() => {
    const tree = solution && treeId ? treeOf(solution, treeId) : undefined;
    return solution && tree && hanging ? hungFromRoot(solution, tree) : null;
  }, [solution, treeId, hanging]);
  const target = useMemo(() => {
    const positions = positionsOf(skeleton);
    if (hung) hung.positions.forEach((point, id) => positions.set(id, point));
    else if (drag?.over === skeleton) drag.at.forEach((point, id) => positions.set(id, point));
    return positions;
  }, [skeleton, drag, hung]);
  const places = useMotion(target, hung ? 'hung' : 'placed');

  const geometry = useMemo(() => layOutMap(skeleton, places, { strands: shown }), [skeleton, places, shown]);
  const final = useMemo(
    () => (places === target ? geometry : layOutMap(skeleton, target, { strands: shown })),
    [places, target, geometry, skeleton, shown],
  );
  const [keepBoxes] = useState(keeper<Box>);
  const [keepLines] = useState(keeper<Line>);
  const boxes = useMemo(() => keepBoxes(geometry.boxes), [keepBoxes, geometry]);
  const lines = useMemo(() => keepLines(geometry.lines), [keepLines, geometry]);
  const bounds = useMemo(() => {
    const whole = boundsOf(skeleton, final);
    if (hung) return { ...whole, x: whole.x - BAND_LABEL, width: whole.width + BAND_LABEL };
    return grouping
      ? {
          x: whole.x - REGION_EDGE,
          y: whole.y - 2 * REGION_EDGE,
          width: whole.width + 2 * REGION_EDGE,
          height: whole.height + 3 * REGION_EDGE,
        }
      : whole;
  }, [skeleton, final, hung, grouping]);
  return { skeleton, geometry, places, boxes, lines, bands: hung?.bands ?? NO_BANDS, bounds };
}

const NO_BANDS: readonly Band[] = [];

/** Keeps the skeleton while edits leave it alone. */
function skeletonKeeper(): (design: Design) => Skeleton {
  let before: Skeleton | null = null;
  return (design) => (before = skeletonOf(design, before));
}

/** Keeps the identity of items that are equal to those of the last time, so that what draws them can skip them. */
function keeper<T extends Box | Line>(): (items: readonly T[]) => readonly T[] {
  let before: readonly T[] = [];
  return (items) =>
    (before = items.map((item, i) =>
      before[i] && JSON.stringify(before[i]) === JSON.stringify(item) ? before[i] : item,
    ));
}
