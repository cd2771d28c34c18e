/** What the map draws where: the design's skeleton laid out as placed or hung from the root, dragged switches under the hand. */
import { useCallback, useMemo, useState } from 'react';
import type { SwitchId } from '../../core/model/ids';
import { isMultiple, type Design } from '../../core/model/document';
import { treeOf } from '../../core/tree/settled';
import { useWorkbench } from '../state/context';
import { boundsOf, widened, type Bounds } from './bounds';
import {
  layOutMap,
  positionsOf,
  skeletonOf,
  type Box,
  type Line,
  type MapGeometry,
  type Point,
  type Skeleton,
} from './geometry';
import { foldSkeleton, type FoldedSkeleton } from './folded';
import { hungFromRoot, type Band } from './hung';
import { useMapDesign } from './mapDesign';
import { useCalm } from './scale';
import { outlinesOf, type Outline } from './outlines';
import { useGrouping } from './useStands';
import { useMotion, type Places } from './motion';

/** Switches held by the pointer, and the skeleton whose positions they leave for the time. */
export interface Drag {
  readonly over: Skeleton;
  readonly at: ReadonlyMap<SwitchId, Point>;
}

export interface MapLayoutState {
  /** What is drawn: the design, or the part of it in focus. */
  readonly design: Design;
  readonly skeleton: FoldedSkeleton;
  readonly geometry: MapGeometry;
  readonly places: Places;
  /** Where every switch stands, those in folded groups too. */
  readonly everywhere: () => Places;
  /** Every switch in the layout without folds. */
  readonly unfolded: () => Places;
  readonly boxes: readonly Box[];
  readonly lines: readonly Line[];
  /** Empty unless the map hangs from a root. */
  readonly bands: readonly Band[];
  readonly bounds: Bounds;
  /** Around groups that are drawn open. */
  readonly outlines: readonly Outline[];
}

/** Of a box in a band, map units: every other one of a band stands lower. */
const TALLEST = 104;
/** Room at the left of hanging switches for what each band costs, pixels. */
const BAND_LABEL = 100;
/** Room around switches for the outlines of groups, pixels. */
const GROUP_EDGES = { left: 18, right: 18, top: 26, bottom: 18 } as const;
/** Room around switches for the outlines of regions, pixels; their names stand above. */
const REGION_EDGES = { left: 18, right: 18, top: 36, bottom: 18 } as const;

export function useMapLayout(drag: Drag | null, scale: number): MapLayoutState {
  const [keepSkeleton] = useState(skeletonKeeper);
  const design = useMapDesign();
  const { stands, open } = useGrouping();
  const whole = useMemo(() => keepSkeleton(design), [keepSkeleton, design]);
  const skeleton = useMemo(() => foldSkeleton(whole, stands), [whole, stands]);
  const shown = useWorkbench((state) => (state.lens === 'Cable' ? 0 : state.shownTrees.length));
  const outlined = useWorkbench((state) => state.lens === 'Group' && state.design.switches.some(isMultiple));
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

  // Ways around boxes take a while to find where links are many: not while someone zooms.
  const calm = useCalm(scale);
  const moving = drag?.over === skeleton || places !== target || (skeleton.links.length > MANY && !calm);
  const geometry = useMemo(
    () =>
      layOutMap(skeleton, places, {
        strands: shown,
        scale,
        quick: moving,
        ...(hanging ? { tallest: TALLEST * scale } : {}),
      }),
    [skeleton, places, shown, scale, moving, hanging],
  );
  const [keepBoxes] = useState(keeper<Box>);
  const [keepLines] = useState(keeper<Line>);
  const boxes = useMemo(() => keepBoxes(geometry.boxes), [keepBoxes, geometry]);
  const lines = useMemo(() => keepLines(geometry.lines), [keepLines, geometry]);
  const bounds = useMemo(() => {
    const all = boundsOf(skeleton, target, { strands: shown });
    if (hung) return widened(all, { left: BAND_LABEL, right: 0, top: 0, bottom: 0 });
    const edged = open.length > 0 ? widened(all, GROUP_EDGES) : all;
    return outlined ? widened(edged, REGION_EDGES) : edged;
  }, [skeleton, target, shown, hung, outlined, open]);
  const outlines = useMemo(() => outlinesOf(open, boxes), [open, boxes]);
  const unfolded = useCallback(() => positionsOf(whole), [whole]);
  // Boxes are drawn closer together where groups are folded: places are those of the design then.
  const everywhere = useCallback(
    () => new Map([...positionsOf(whole), ...(skeleton.groups.size > 0 ? [] : places)]),
    [whole, places, skeleton],
  );
  return {
    design,
    skeleton,
    geometry,
    places,
    everywhere,
    unfolded,
    boxes,
    lines,
    bands: hung?.bands ?? NO_BANDS,
    bounds,
    outlines,
  };
}

/** Links that are laid out within a frame or two, bends and all. */
const MANY = 200;

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
