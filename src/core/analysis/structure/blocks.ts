/** The blocks that a network is built of: its core, pairs of distribution switches with the access switches that only they serve, and what hangs from the core itself. */
import type { Design } from '../../model/document';
import type { SwitchId } from '../../model/ids';

/** What of a design its blocks depend on. */
export type Cabled = {
  readonly switches: readonly {
    readonly id: SwitchId;
    readonly name?: string | undefined;
    readonly tier: Design['switches'][0]['tier'];
    /** Of a group that stands for switches: how many. */
    readonly inside?: number | undefined;
  }[];
  readonly links: readonly { readonly a: { readonly switch: SwitchId }; readonly b: { readonly switch: SwitchId } }[];
};

/** 0 at the core, 1 at distribution, 2 at access. */
export type Level = 0 | 1 | 2;

/** Access switches that are cabled to each other, in the order of the way through them: one alone, a chain, a ring. */
export type Limb = readonly SwitchId[];

export interface Block {
  /** The switches that serve the limbs; none where these hang from the core. */
  readonly heads: readonly SwitchId[];
  readonly limbs: readonly Limb[];
}

/** What hangs together over links: its core, and its blocks in natural order of their names. */
export interface Island {
  readonly core: readonly SwitchId[];
  readonly blocks: readonly Block[];
}

const collator = new Intl.Collator('en', { numeric: true });
/** The order that people count in: `acc-2` before `acc-10`. */
export const naturally = (a: string, b: string): number => collator.compare(a, b) || (a < b ? -1 : a > b ? 1 : 0);

/** The islands of a network, the largest first. */
export function islandsOf(design: Cabled, levelOf: (id: SwitchId) => Level = levelsOf(design)): Island[] {
  const name = new Map(design.switches.map((sw) => [sw.id, sw.name ?? sw.id]));
  const inOrder = (ids: Iterable<SwitchId>): SwitchId[] =>
    [...ids].sort((a, b) => naturally(name.get(a)!, name.get(b)!) || naturally(a, b));
  const near = neighboursOf(design);
  const all = inOrder(near.keys());
  return componentsOf(all, near, () => true)
    .map((members): Island => {
      const core = inOrder(members.filter((id) => levelOf(id) === 0));
      const heads = members.filter((id) => levelOf(id) === 1);
      const access = inOrder(members.filter((id) => levelOf(id) === 2));
      const limbs = componentsOf(access, near, (id) => levelOf(id) === 2).map((limb) => alongTheWay(limb, near));
      const above = (limb: Limb): SwitchId[] =>
        limb.flatMap((id) => [...near.get(id)!].filter((other) => levelOf(other) === 1));

      // Heads that serve a limb together are of one block; so are two that are cabled to each other alone.
      const group = new Map(heads.map((id) => [id, id]));
      const find = (id: SwitchId): SwitchId => {
        const up = group.get(id)!;
        return up === id ? id : find(up);
      };
      for (const limb of limbs) {
        const [first, ...others] = above(limb);
        for (const other of others) group.set(find(other), find(first!));
      }
      for (const id of heads) {
        const mates = [...near.get(id)!].filter((other) => levelOf(other) === 1);
        const [mate] = mates;
        if (mates.length === 1 && mate && [...near.get(mate)!].filter((other) => levelOf(other) === 1).length === 1)
          group.set(find(mate), find(id));
      }
      const blocks = new Map<SwitchId, { heads: SwitchId[]; limbs: Limb[] }>();
      for (const id of inOrder(heads)) {
        const block = blocks.get(find(id));
        if (block) block.heads.push(id);
        else blocks.set(find(id), { heads: [id], limbs: [] });
      }
      const loose: Limb[] = [];
      for (const limb of limbs) {
        const [head] = above(limb);
        if (head) blocks.get(find(head))!.limbs.push(limb);
        else loose.push(limb);
      }
      // Without distribution the core serves access itself.
      if (blocks.size === 0 && core.length > 0 && loose.length > 0)
        return { core: [], blocks: [{ heads: core, limbs: loose }] };
      return { core, blocks: [...blocks.values(), ...(loose.length > 0 ? [{ heads: [], limbs: loose }] : [])] };
    })
    .sort((a, b) => sizeOf(b) - sizeOf(a));
}

const sizeOf = ({ core, blocks }: Island): number =>
  core.length + blocks.reduce((sum, { heads, limbs }) => sum + heads.length + limbs.flat().length, 0);

/** The levels that tiers say; where none says anything, by hops from the switch with the most links. */
function levelsOf(design: Cabled): (id: SwitchId) => Level {
  if (design.switches.some((sw) => sw.tier !== 'access')) {
    const levels = new Map(
      design.switches.map(({ id, tier }): [SwitchId, Level] => [
        id,
        tier === 'core' ? 0 : tier === 'distribution' ? 1 : 2,
      ]),
    );
    return (id) => levels.get(id) ?? 2;
  }
  const near = neighboursOf(design);
  const [centre] = [...near].sort((a, b) => b[1].size - a[1].size || naturally(a[0], b[0]));
  return centre && centre[1].size > 2 ? levelsFrom(design, [centre[0]]) : () => 2;
}

/** Levels by hops: the start is the core, its neighbours that lead on are distribution, all others access. */
export function levelsFrom(design: Cabled, start: readonly SwitchId[]): (id: SwitchId) => Level {
  const near = neighboursOf(design);
  const first = new Set(start);
  const second = new Set(start.flatMap((id) => [...(near.get(id) ?? [])]).filter((id) => !first.has(id)));
  const leadsOn = (id: SwitchId): boolean =>
    [...near.get(id)!].some((other) => !first.has(other) && !second.has(other));
  return (id) => (first.has(id) ? 0 : second.has(id) && leadsOn(id) ? 1 : 2);
}

function neighboursOf({ switches, links }: Cabled): Map<SwitchId, Set<SwitchId>> {
  const near = new Map(switches.map((sw): [SwitchId, Set<SwitchId>] => [sw.id, new Set()]));
  for (const { a, b } of links) {
    if (a.switch === b.switch) continue;
    near.get(a.switch)?.add(b.switch);
    near.get(b.switch)?.add(a.switch);
  }
  return near;
}

/** What hangs together over switches that `counts` lets through, each in the order given. */
function componentsOf(
  ids: readonly SwitchId[],
  near: ReadonlyMap<SwitchId, ReadonlySet<SwitchId>>,
  counts: (id: SwitchId) => boolean,
): SwitchId[][] {
  const seen = new Set<SwitchId>();
  return ids.flatMap((start) => {
    if (seen.has(start)) return [];
    seen.add(start);
    const found = [start];
    for (const id of found)
      for (const other of near.get(id)!) {
        if (seen.has(other) || !counts(other)) continue;
        seen.add(other);
        found.push(other);
      }
    return [found];
  });
}

/** A limb from one end to the other; one that branches as it is found, breadth first. */
function alongTheWay(limb: readonly SwitchId[], near: ReadonlyMap<SwitchId, ReadonlySet<SwitchId>>): Limb {
  const own = new Set(limb);
  const inside = (id: SwitchId): SwitchId[] => [...near.get(id)!].filter((other) => own.has(other));
  if (limb.some((id) => inside(id).length > 2)) return limb;
  // From an end that is served from above, where there is one.
  const ends = limb.filter((id) => inside(id).length <= 1);
  const served = (id: SwitchId): boolean => near.get(id)!.size > inside(id).length;
  const way = [ends.find(served) ?? ends[0] ?? limb[0]!];
  for (const id of way) {
    const next = inside(id).find((other) => !way.includes(other));
    if (next) way.push(next);
  }
  return way;
}
