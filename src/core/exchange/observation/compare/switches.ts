/** Who is heard, what they speak, their regions and timers. */
import type { Command } from '../../../edit/commands';
import { isMultiple, regionSchema, traitsOf } from '../../../model/document';
import { TIMER_RANGES } from '../../../model/legal';
import { mapText, regionName } from '../../../model/region';
import { regionsOf } from '../../../topology/region';
import type { RegionId } from '../../../model/ids';
import { dialectOf } from '../draw/dialect';
import type { SwitchMatch } from '../match';
import type { ObservedMst } from '../observation';
import type { Held } from './held';
import { strangerAsThere } from './strangers';

export function compareHeard(held: Held): void {
  const { unseen, unknown, pairs } = held.matches;
  for (const sw of unseen)
    // Who was not read may well be there: nothing is taken over from silence.
    if (sw.up) held.tell('silent', 'switch', { switch: sw.id }, 'there', 'nobody answers as it');
  for (const sw of unknown)
    held.tell('silent', `switch ${sw.name || sw.source}`, {}, 'no such switch', `it answers at ${sw.source}`, {
      takeOver: () => strangerAsThere(held, sw),
    });
  for (const { designed } of pairs)
    if (!designed.up)
      held.tell('silent', 'switch', { switch: designed.id }, 'without power', 'it answers', {
        takeOver: () => [{ do: 'set-switch', switch: designed.id, up: true }],
      });
}

export function compareSwitch(held: Held, pair: SwitchMatch): void {
  const { designed, observed } = pair;
  const { dialect, isTold } = dialectOf(observed);
  if (isTold && observed.trees.length > 0) {
    const at = { switch: designed.id };
    held.tell('mode', 'spanning tree mode', at, traitsOf(designed.dialect).name, traitsOf(dialect).name, {
      takeOver: () => [{ do: 'set-switch', switch: designed.id, dialect }],
    });
  }
  if (observed.mst) compareRegion(held, pair, observed.mst);
  compareTimers(held, pair);
}

/** Two that are told apart by anything of it are in regions of their own (802.1Q-2018 13.8). */
function compareRegion(held: Held, { designed }: SwitchMatch, mst: ObservedMst): void {
  const region = regionsOf(held.design)(held.bridge(designed.id));
  if (!region) return;
  const { name, revision, digest } = region.configurationId;
  const text = (called: string, of: number, map: readonly { readonly id: number; readonly vlans: string }[]): string =>
    `"${called}", revision ${of}, ${mapText(map)}`;
  const wanted = region.instances.map(({ mstid, vlans }) => ({ id: mstid, vlans: vlans.format() }));
  const there = mst.instances.map(({ instance, vlans }) => ({ id: instance, vlans }));
  const isOther = mst.digest !== null && mst.digest !== digest && mapText(wanted) === mapText(there);
  held.tell(
    'mode',
    'MST configuration',
    { switch: designed.id },
    text(name, revision, wanted),
    `${text(mst.name, mst.revision, there)}${isOther ? `, digest ${mst.digest}` : ''}`,
    {
      why: isOther ? 'its map of VLANs is not what it tells' : '',
      takeOver:
        isOther || !regionName.safeParse(mst.name).success
          ? null
          : () => asRegion(held, designed.id, mst.name, mst.revision, there),
    },
  );
}

/** The design's own settings where they are the same, else new ones. */
function asRegion(
  { design }: Held,
  sw: SwitchMatch['designed']['id'],
  name: string,
  revision: number,
  instances: readonly { readonly id: number; readonly vlans: string }[],
): Command[] {
  const known = design.regions.find(
    (each) => each.name === name && each.revision === revision && mapText(each.instances) === mapText(instances),
  );
  if (known) return [{ do: 'set-switch', switch: sw, region: known.id }];
  const taken = new Set<string>(design.regions.map(({ id }) => id));
  let id = `${name.toLowerCase() || 'region'}-${revision}`;
  for (let n = 2; taken.has(id); n += 1) id = `${name.toLowerCase() || 'region'}-${revision}-${n}`;
  return [
    { do: 'add-region', region: regionSchema.parse({ id, name, revision, instances }) },
    { do: 'set-switch', switch: sw, region: id as RegionId },
  ];
}

const TIMERS = ['maxAge', 'hello', 'forwardDelay', 'txHold', 'maxHops'] as const;
const TIMER_NAMES = {
  maxAge: 'max age',
  hello: 'hello time',
  forwardDelay: 'forward delay',
  txHold: 'transmit hold count',
  maxHops: 'max hops',
} as const;

/** Its own, which hold where it is root. */
function compareTimers(held: Held, { designed, observed }: SwitchMatch): void {
  const set = observed.trees[0]?.set;
  for (const key of TIMERS) {
    const value = key === 'maxHops' ? (isMultiple(designed) ? observed.mst?.maxHops : null) : set?.[key];
    if (value === null || value === undefined) continue;
    const { min, max } = TIMER_RANGES[key];
    const isLegal = Number.isInteger(value) && value >= min && value <= max;
    held.tell(
      'setting',
      TIMER_NAMES[key],
      { switch: designed.id },
      String(held.bridge(designed.id).timers[key]),
      String(value),
      { takeOver: isLegal ? () => [{ do: 'set-switch', switch: designed.id, timers: { [key]: value } }] : null },
    );
  }
}
