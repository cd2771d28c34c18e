/** Both ends of a bundle side by side: every field, whether it may differ, and what makes it agree. */
import type { BundleEnd, Bundles } from '../../topology/lag/ends';
import { modePair } from '../../topology/lag/modes';
import type { SettledBundles } from '../../topology/lag/settled';
import type { Command } from '../../edit/commands';
import type { HostId } from '../../model/ids';
import { type Bundle, type BundleMode, type Design, carriageText } from '../../model/document';
import { bundleCards, bundleThese, modeOpposite } from './bundling';
import type { Remedy } from '../findings/finding';

/** What stands opposite an end: a bundle, single ports, a host's cards, nothing. */
export interface Opposite {
  readonly name: string;
  /** Null where no bundle is there. */
  readonly end: BundleEnd | null;
  /** Members of this end that lead there. */
  readonly members: readonly number[];
}

export interface EndField {
  readonly name: string;
  readonly here: string;
  readonly there: string;
  /** Whether the ends must agree, and do not. */
  readonly wrong: boolean;
}

export interface BundlePicture {
  readonly end: BundleEnd;
  readonly opposites: readonly Opposite[];
  /** Against the first opposite. */
  readonly fields: readonly EndField[];
  readonly verdict: string;
  readonly remedies: readonly Remedy[];
}

/** What stands opposite an end, most members first. */
export function oppositesOf({ ends, members }: Bundles, end: BundleEnd): Opposite[] {
  const found = new Map<string, { name: string; end: BundleEnd | null; members: number[] }>();
  for (const m of end.members) {
    const member = members[m]!;
    if (member.farSide === 'nothing') continue;
    const far = member.far < 0 ? null : ends[members[member.far]!.end]!;
    const name = far ? far.ownerName : member.farName.replace(/ (port|card) [^ ]*$/, '');
    const key = !far ? name : far.ofPair ? `pair ${far.mac} ${far.key}` : `bundle ${far.index}`;
    const known = found.get(key) ?? { name, end: far, members: [] };
    if (!known.name.split(' and ').includes(name)) known.name += ` and ${name}`;
    known.members.push(m);
    found.set(key, known);
  }
  return [...found.values()].sort((a, b) => b.members.length - a.members.length);
}

/** A bundle with both its ends. */
export function bundlePicture(
  design: Design,
  bundles: Bundles,
  end: BundleEnd,
  settled: SettledBundles,
): BundlePicture {
  const opposites = oppositesOf(bundles, end);
  const [first] = opposites;
  const far = first?.end ?? null;
  const [own, other] = [bundleOf(design, end), far && bundleOf(design, far)];
  const field = (name: string, of: (at: BundleEnd, bundle: Bundle | null) => string, alike: boolean): EndField => {
    const [here, there] = [of(end, own), far ? of(far, other) : '–'];
    return { name, here, there, wrong: far !== null && alike && here !== there };
  };
  const mode = modePair(end.mode, far?.mode ?? 'none');
  const speeds = (at: BundleEnd): string => [...new Set(at.members.map((m) => bundles.members[m]!.speed))].join(', ');
  const fields: EndField[] = [
    { ...field('Mode', (at) => at.mode, false), wrong: first !== undefined && mode.outcome !== 'up' },
    field('Members', (at) => at.members.map((m) => bundles.members[m]!.id).join(', '), false),
    field('Speeds, Mb/s', speeds, true),
    ...(own && (other || !far)
      ? [field('VLANs', (_, bundle) => (bundle ? carriageText(bundle.vlans) : ''), true)]
      : []),
    field('Timeout', (at) => (at.fast ? 'fast' : 'slow'), false),
    field('Key', (at) => String(at.key), false),
    field('Minimum links', (at) => String(at.minLinks), false),
    field('Maximum active links', (at) => String(at.maxActive), true),
    field('Hash', (at) => `layer ${at.hash}`, false),
    field('System', (at) => `${at.systemPriority}.${at.mac}`, false),
  ];
  const outside =
    opposites.length > 1 ? ` Its cables lead to ${opposites.map((each) => each.name).join(' and ')}.` : '';
  return {
    end,
    opposites,
    fields,
    verdict: `${settled.ends[end.index]!.reason}${outside}`,
    remedies: remediesFor(design, bundles, end, opposites),
  };
}

/** The bundle that an end is, null of a host's. */
export const bundleOf = (design: Design, end: BundleEnd): Bundle | null =>
  end.owner.kind === 'switch' ? (design.bundles.find((bundle) => bundle.id === end.id) ?? null) : null;

/** One click each, the likeliest first. */
const remediesFor = (design: Design, bundles: Bundles, end: BundleEnd, opposites: readonly Opposite[]): Remedy[] => [
  ...modeRemedies(end, opposites),
  ...farBundleRemedies(design, bundles, end, opposites),
  ...vlanRemedies(design, end, opposites),
  ...strayRemedies(design, bundles, end, opposites),
];

/** Other modes at either end with which the two come up. */
export function modeRemedies(end: BundleEnd, [first]: readonly Opposite[]): Remedy[] {
  if (!first?.end || modePair(end.mode, first.end.mode).outcome === 'up') return [];
  return modesThatWork(end, first.end).map(([at, mode]) => ({
    label: `make ${at.ownerName} ${mode}`,
    commands: [setMode(at, mode)],
  }));
}

/** A bundle at the other end, of the ports that face this one. */
export function farBundleRemedies(
  design: Design,
  bundles: Bundles,
  end: BundleEnd,
  [first]: readonly Opposite[],
): Remedy[] {
  const own = bundleOf(design, end);
  if (!first || first.end) return [];
  if (end.owner.kind === 'host') return cardRemedies(design, end.owner.host, `bundle the ports of ${first.name} too`);
  if (first.members.every((m) => bundles.members[m]!.farSide === 'card')) {
    const { at } = bundles.members[first.members[0]!]!;
    const host = design.hosts.find((each) =>
      each.attach.some((card) => card.switch === at.switch && card.port === at.port),
    );
    return host ? cardRemedies(design, host.id, `bundle the cards of ${first.name} too`) : [];
  }
  if (!own || !first.members.every((m) => bundles.members[m]!.farSide === 'port')) return [];
  const links = first.members.flatMap((m) => bundles.members[m]!.link ?? []);
  const mode = modeOpposite(end.mode);
  const made = bundleThese({ ...design, bundles: design.bundles.filter((bundle) => bundle.id !== end.id) }, links, [
    mode,
    mode,
  ]);
  const added = made.ok ? made.value.bundles.find((bundle) => bundle.switch !== own.switch) : undefined;
  return added && !design.bundles.some((bundle) => bundle.id === added.id)
    ? [{ label: `bundle the ports of ${first.name} too`, commands: [{ do: 'add-bundle', bundle: added }] }]
    : [];
}

function cardRemedies(design: Design, host: HostId, label: string): Remedy[] {
  const made = bundleCards(design, host);
  return made.ok ? [{ label, commands: made.value.commands }] : [];
}

/** The same VLANs at the other end. */
export function vlanRemedies(design: Design, end: BundleEnd, [first]: readonly Opposite[]): Remedy[] {
  const [own, other] = [bundleOf(design, end), first?.end ? bundleOf(design, first.end) : null];
  if (!own || !other || !first || JSON.stringify(own.vlans) === JSON.stringify(other.vlans)) return [];
  return [
    {
      label: `make ${first.name} carry the same VLANs`,
      commands: [{ do: 'set-bundle', bundle: other.id, vlans: own.vlans }],
    },
  ];
}

/** Without the members whose cables lead elsewhere than most do. */
export function strayRemedies(
  design: Design,
  bundles: Bundles,
  end: BundleEnd,
  opposites: readonly Opposite[],
): Remedy[] {
  const own = bundleOf(design, end);
  if (opposites.length < 2 || !own) return [];
  const strays = opposites.slice(1).flatMap((each) => each.members.map((m) => bundles.members[m]!.at.port));
  return [
    {
      label: `take ${strays.length === 1 ? `port ${strays[0]}` : `ports ${strays.join(', ')}`} out of the bundle`,
      commands: [{ do: 'set-bundle', bundle: own.id, ports: own.ports.filter((port) => !strays.includes(port)) }],
    },
  ];
}

const setMode = (end: BundleEnd, mode: BundleMode): Command => {
  if (end.owner.kind === 'switch') return { do: 'set-bundle', bundle: end.owner.bundle, mode };
  return {
    do: 'set-host',
    host: end.owner.host,
    bundle: {
      mode,
      timeout: end.fast ? 'fast' : 'slow',
      key: end.key,
      minLinks: end.minLinks,
      maxActive: end.maxActive,
      hash: end.hash,
    },
  };
};

/** Changes of one end's mode after which the two come up; LACP before the others. */
function modesThatWork(a: BundleEnd, b: BundleEnd): (readonly [BundleEnd, BundleMode])[] {
  const found: (readonly [BundleEnd, BundleMode])[] = [];
  for (const [at, other] of [
    [a, b],
    [b, a],
  ] as const) {
    const mode = (['active', 'initiate', 'static'] as const).find(
      (each) => modePair(each, other.mode).outcome === 'up',
    );
    if (mode) found.push([at, mode]);
  }
  return found.sort(([, x], [, y]) => Number(y === 'active') - Number(x === 'active'));
}
