/**
 * Places by structure: the core in a row, blocks beside each other below it (above it as well where that makes better use
 * of a screen), in each block the heads in a row and their limbs in two columns with room between them for the links.
 * Map units; a place is the middle of a switch's box.
 */
import type { SwitchId } from '../../model/ids';
import { islandsOf, type Block, type Cabled, type Island, type Level, type Limb } from './blocks';

export interface Place {
  readonly x: number;
  readonly y: number;
}

/** From switch to switch: in a row of the core, of heads, in a column, along a limb in it, from the middle of a block to its columns, between limbs of the core; along a way of its own, and from one row of that to the next. */
const STEP = { core: 240, head: 190, row: 84, limb: 112, column: 128, loose: 170, way: 220, turn: 170 } as const;
/** From the core to heads, and from heads to the first row of limbs. */
const DROP = { core: 200, limbs: 140 } as const;
/** Folded groups: from one to the next, from row to row, from the core to the first; so many stand in plain rows. */
const GROUP = { x: 218, y: 150, drop: 170 } as const;
const IN_ROWS = 10;
/** Between blocks, and between islands. */
const GAP = { block: 36, island: 160 } as const;
/** Half the width that a column takes beyond its middle. */
const BESIDE = 60;
/** Width to height of the paper that is filled best. */
const SCREEN = 1.9;

interface Laid {
  readonly places: ReadonlyMap<SwitchId, Place>;
  readonly width: number;
  /** Below the first row of heads. */
  readonly height: number;
}

/** What may already have a place. */
interface Placed extends Pick<Cabled, 'links'> {
  readonly switches: readonly (Cabled['switches'][0] & { readonly position?: Place | undefined })[];
}

/** Places for every switch: its own position, or one by the structure of the network; switches without a position stand below those that have one. */
export function placesOf(design: Placed): Map<SwitchId, Place> {
  const placed = design.switches.flatMap((sw): [SwitchId, Place][] => (sw.position ? [[sw.id, sw.position]] : []));
  const positions = new Map(placed);
  if (placed.length === design.switches.length) return positions;
  const loose = design.switches.filter((sw) => !sw.position);
  const own = new Set(loose.map((sw) => sw.id));
  const links = design.links.filter(({ a, b }) => own.has(a.switch) && own.has(b.switch));
  const top = placed.length > 0 ? Math.max(...placed.map(([, { y }]) => y)) + BELOW : 0;
  for (const [id, { x, y }] of structuredPlaces({ switches: loose, links })) positions.set(id, { x, y: y + top });
  return positions;
}

/** From switches with a position to those without. */
const BELOW = 180;

/** A place for every switch of a design. */
export function structuredPlaces(design: Cabled, levelOf?: (id: SwitchId) => Level): Map<SwitchId, Place> {
  const groups = new Set(design.switches.flatMap((sw) => (sw.inside === undefined ? [] : [sw.id])));
  const laid = islandsOf(design, levelOf).map((island) => islandPlaces(island, groups));
  const area = laid.reduce((sum, { width, height }) => sum + (width + GAP.island) * (height + GAP.island), 0);
  const widest = Math.max(...laid.map(({ width }) => width), Math.sqrt(area * SCREEN));
  const places = new Map<SwitchId, Place>();
  let [x, y, high] = [0, 0, 0];
  for (const island of laid) {
    if (x > 0 && x + island.width > widest) [x, y, high] = [0, y + high + GAP.island, 0];
    for (const [id, place] of island.places) places.set(id, { x: Math.round(x + place.x), y: Math.round(y + place.y) });
    x += island.width + GAP.island;
    high = Math.max(high, island.height);
  }
  return places;
}

/** One island, its top left corner at 0, 0. */
function islandPlaces({ core, blocks }: Island, groups: ReadonlySet<SwitchId>): Laid {
  const heads = blocks.flatMap((block) => (isGroup(block, groups) ? block.heads : []));
  if (core.length > 0 && heads.length === blocks.length && heads.length > IN_ROWS) return zigzag(core, heads);
  const laid = blocks.map((block) => blockPlaces(block, groups));
  const one = rowOf(laid);
  const half = Math.ceil(laid.length / 2);
  const two = [rowOf(laid.slice(0, half)), rowOf(laid.slice(half))] as const;
  const drop = core.length > 0 ? DROP.core : 0;
  const fits = (width: number, height: number): number =>
    Math.min(SCREEN / Math.max(1, width), 1 / Math.max(1, height));
  const both =
    core.length > 0 &&
    laid.length > 2 &&
    fits(Math.max(two[0].width, two[1].width), two[0].height + two[1].height + 2 * drop) >
      fits(one.width, one.height + drop);
  const places = new Map<SwitchId, Place>();
  const coreWidth = (core.length - 1) * STEP.core + 2 * BESIDE;
  const width = Math.max(both ? Math.max(two[0].width, two[1].width) : one.width, coreWidth);
  const level = both ? two[1].height + drop : 0;
  core.forEach((id, i) => places.set(id, { x: width / 2 + (i - (core.length - 1) / 2) * STEP.core, y: level }));
  const put = (row: Laid, upward: boolean): void => {
    for (const [id, { x, y }] of row.places)
      places.set(id, { x: (width - row.width) / 2 + x, y: upward ? level - drop - y : level + drop + y });
  };
  put(both ? two[0] : one, false);
  if (both) put(two[1], true);
  return { places, width, height: both ? two[0].height + two[1].height + 2 * drop : one.height + drop };
}

/** Many folded groups over and under the core: in several rows, every other one shifted, so that links to those behind pass between. */
function zigzag(core: readonly SwitchId[], groups: readonly SwitchId[]): Laid {
  const perSide = Math.ceil(groups.length / 2);
  const sized = [1, 2, 3, 4].map((rows) => {
    const columns = Math.ceil(perSide / rows);
    const width = (columns - 1 + (rows > 1 ? 0.5 : 0)) * GROUP.x + 2 * BESIDE;
    const height = 2 * (GROUP.drop + (rows - 1) * GROUP.y);
    return { rows, width, height, fit: Math.min(SCREEN / width, 1 / height) };
  });
  const { rows, width, height } = sized.reduce((best, each) => (each.fit > best.fit ? each : best));
  const places = new Map<SwitchId, Place>();
  const level = height / 2;
  core.forEach((id, i) => places.set(id, { x: width / 2 + (i - (core.length - 1) / 2) * STEP.core, y: level }));
  groups.forEach((id, i) => {
    const [at, way] = i < perSide ? [i, 1] : [i - perSide, -1];
    const row = at % rows;
    const x = BESIDE + (Math.floor(at / rows) + (row % 2) / 2) * GROUP.x;
    places.set(id, { x, y: level + way * (GROUP.drop + row * GROUP.y) });
  });
  return { places, width, height };
}

/** Blocks beside each other. */
function rowOf(blocks: readonly Laid[]): Laid {
  const places = new Map<SwitchId, Place>();
  let x = 0;
  for (const block of blocks) {
    for (const [id, place] of block.places) places.set(id, { x: x + place.x, y: place.y });
    x += block.width + GAP.block;
  }
  return { places, width: Math.max(0, x - GAP.block), height: Math.max(0, ...blocks.map(({ height }) => height)) };
}

/** Whether a block is a folded group alone. */
const isGroup = ({ heads, limbs }: Block, groups: ReadonlySet<SwitchId>): boolean =>
  limbs.length === 0 && heads.length === 1 && groups.has(heads[0]!);

function blockPlaces(block: Block, groups: ReadonlySet<SwitchId>): Laid {
  const { heads, limbs } = block;
  if (isGroup(block, groups))
    return { places: new Map([[heads[0]!, { x: GROUP.x / 2, y: 0 }]]), width: GROUP.x - GAP.block, height: 0 };
  if (heads.length > 0) return headedLimbs(heads, limbs);
  return limbs.length === 1 && limbs[0]!.length > 2 ? ownWay(limbs[0]!) : looseLimbs(limbs);
}

/** A chain or a ring by itself: there and back in rows, so that it reads along the way, and both ends of a ring meet. */
function ownWay(limb: Limb): Laid {
  const longest = Math.max(2, Math.ceil(Math.sqrt(limb.length * SCREEN * (STEP.turn / STEP.way))));
  const rows = Math.max(2, 2 * Math.round(limb.length / longest / 2));
  const perRow = Math.ceil(limb.length / rows);
  const places = new Map<SwitchId, Place>();
  limb.forEach((id, i) => {
    const [row, at] = [Math.floor(i / perRow), i % perRow];
    places.set(id, { x: BESIDE + (row % 2 === 0 ? at : perRow - 1 - at) * STEP.way, y: row * STEP.turn });
  });
  const used = Math.ceil(limb.length / perRow);
  return { places, width: (perRow - 1) * STEP.way + 2 * BESIDE, height: (used - 1) * STEP.turn };
}

/** Limbs that hang from the core: beside each other, each straight down. */
function looseLimbs(limbs: readonly Limb[]): Laid {
  const places = new Map<SwitchId, Place>();
  limbs.forEach((limb, i) =>
    limb.forEach((id, row) => places.set(id, { x: BESIDE + i * STEP.loose, y: row * STEP.row })),
  );
  const rows = Math.max(...limbs.map((limb) => limb.length));
  return { places, width: (limbs.length - 1) * STEP.loose + 2 * BESIDE, height: (rows - 1) * STEP.limb };
}

/** Heads in a row over two columns, in which a limb stays together; each goes to the column that is shorter. */
function headedLimbs(heads: readonly SwitchId[], limbs: readonly Limb[]): Laid {
  const places = new Map<SwitchId, Place>();
  const width = Math.max((heads.length - 1) * STEP.head, limbs.length > 1 ? 2 * STEP.column : 0) + 2 * BESIDE;
  heads.forEach((id, i) => places.set(id, { x: width / 2 + (i - (heads.length - 1) / 2) * STEP.head, y: 0 }));
  const filled = [0, 0];
  // One alone stands under its heads.
  const column = limbs.length > 1 ? [-STEP.column, STEP.column] : [0, 0];
  for (const limb of limbs) {
    const side = filled[0]! <= filled[1]! || limbs.length === 1 ? 0 : 1;
    for (const [i, id] of limb.entries()) {
      if (i > 0) filled[side]! += STEP.limb - STEP.row;
      places.set(id, { x: width / 2 + column[side]!, y: DROP.limbs + filled[side]! });
      filled[side]! += STEP.row;
    }
  }
  const deepest = Math.max(...filled);
  return { places, width, height: deepest > 0 ? DROP.limbs + deepest - STEP.row : 0 };
}
