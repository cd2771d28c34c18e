/** Tiers guessed from whom a switch is cabled to and how fast, groups from what switches are called. */
import { levelsFrom } from '../../../analysis/structure/blocks';
import { TIERS, type Tier } from '../../../model/document';
import type { GroupId, SwitchId } from '../../../model/ids';
import type { DrawnLink, DrawnSwitch } from './drawing';
import { USUAL_SPEED } from './costs';

/** Of the fastest: what else is of the core, and how many at the most. */
const AS_FAST = 0.75;
const MOST_IN_CORE = 4;

/** The core is where most speed leads to those who lead on most themselves; what it leads on by is distribution. */
export function tiersOf(switches: readonly DrawnSwitch[], links: readonly DrawnLink[]): ReadonlyMap<SwitchId, Tier> {
  const speed = new Map(
    switches.flatMap((sw) =>
      sw.ports.map((port) => [`${sw.id}\n${port.id}`, Number(port.speed ?? USUAL_SPEED)] as const),
    ),
  );
  const near = new Map<SwitchId, Set<SwitchId>>(switches.map(({ id }) => [id, new Set()]));
  const weight = new Map<SwitchId, number>();
  for (const { a, b } of links) {
    if (a.switch === b.switch) continue;
    near.get(a.switch)!.add(b.switch);
    near.get(b.switch)!.add(a.switch);
  }
  for (const { a, b } of links)
    for (const [end, far] of [
      [a, b],
      [b, a],
    ] as const) {
      if (a.switch === b.switch) continue;
      const own = speed.get(`${end.switch}\n${end.port}`) ?? USUAL_SPEED;
      weight.set(end.switch, (weight.get(end.switch) ?? 0) + own * near.get(far.switch)!.size);
    }
  const score = (id: SwitchId): number => weight.get(id) ?? 0;
  const byScore = switches.map(({ id }) => id).sort((x, y) => score(y) - score(x));
  const [first] = byScore;
  // In a ring or a chain nobody is more than another.
  if (first === undefined || [...near.values()].every((others) => others.size < 3))
    return new Map(switches.map(({ id }) => [id, 'access']));
  const core = byScore
    .filter((id) => id === first || (score(id) >= AS_FAST * score(first) && near.get(first)!.has(id)))
    .slice(0, MOST_IN_CORE);
  const level = levelsFrom({ switches: switches.map(({ id }) => ({ id, tier: 'access' })), links }, core);
  return new Map(switches.map(({ id }) => [id, TIERS[level(id)]]));
}

/** So many stand together; of more, what they are called says what they are, not where. */
const MOST_IN_GROUP = 12;
/** A map of so many needs no folding. */
const FEW = 24;

/** Those whose names begin alike: `ridge-a` and `ridge-b` are in `ridge`. Where all do, that tells nothing. */
export function groupsBy(switches: readonly DrawnSwitch[]): {
  readonly groups: readonly { readonly id: GroupId; readonly name: string }[];
  readonly of: ReadonlyMap<SwitchId, GroupId>;
} {
  const stems = new Map<string, SwitchId[]>();
  for (const sw of switches) {
    const stem = /^(.*\p{L}.*?)[-_. ]*(\d+|[-_. ]\p{L})$/u.exec(String(sw.name ?? sw.id))?.[1];
    if (stem !== undefined && stem.length >= 2) stems.set(stem, [...(stems.get(stem) ?? []), sw.id]);
  }
  const alike = [...stems].filter(
    ([, ids]) => ids.length >= 2 && ids.length <= MOST_IN_GROUP && ids.length < switches.length,
  );
  // Where few of many are grouped, the blocks of the network are the better parts of it.
  const count = alike.reduce((sum, [, ids]) => sum + ids.length, 0);
  const kept = switches.length <= FEW || count * 2 >= switches.length ? alike : [];
  return {
    groups: kept.map(([stem]) => ({ id: stem as GroupId, name: stem })),
    of: new Map(kept.flatMap(([stem, ids]) => ids.map((id) => [id, stem as GroupId] as const))),
  };
}
