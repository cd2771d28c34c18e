/** Findings about bundles: ends that do not come up, members that do not fit, links that should be one. */
import type { BridgePort } from '../../topology/bridges';
import { areHalves, bundlesOf, type BundleEnd, type Bundles } from '../../topology/lag/ends';
import { modePair } from '../../topology/lag/modes';
import type { Command } from '../../edit/commands';
import { treesName, type TreeId } from '../../model/ids';
import { PORT_PRIORITY } from '../../model/legal';
import { DEFAULT_CARRIAGE, type Bundle, type Design, carriageText } from '../../model/document';
import {
  bundleOf,
  farBundleRemedies,
  modeRemedies,
  oppositesOf,
  strayRemedies,
  vlanRemedies,
  type Opposite,
} from '../lag/bundleEnds';
import { bundleAt, bundleThese, parallelsOf } from '../lag/bundling';
import type { Finding, Remedy, Rule } from './finding';
import { bucketShares } from '../sharing/flows';

/** All findings about bundles. */
export function bundleFindings(design: Design): Finding[] {
  const bundles = bundlesOf(design);
  return [...bundles.ends.flatMap((end) => endFindings(design, bundles, end)), ...parallelFindings(design)];
}

function endFindings(design: Design, bundles: Bundles, end: BundleEnd): Finding[] {
  const opposites = oppositesOf(bundles, end);
  const own = bundleOf(design, end);
  const say = (rule: Rule, text: string, why: string, remedies: readonly Remedy[]): Finding => ({
    rule,
    text: `${end.ownerName}, ${own ? `bundle ${end.name}` : 'its cards'}: ${text}`,
    why,
    remedies,
    at: own ? { switch: own.switch, port: own.id } : { ...bundles.members[end.members[0]!]!.at },
  });
  return [
    ...modeFindings(design, bundles, end, opposites, say),
    ...strayFindings(design, bundles, end, opposites, say),
    ...(own ? [...vlanFindings(design, own, end, opposites, say), ...memberFindings(design, own, say)] : []),
    ...speedFindings(bundles, end, own, say),
    ...countFindings(
      end,
      own,
      say,
      bundles.ends.some((other) => areHalves(end, other)),
    ),
  ];
}

type Say = (rule: Rule, text: string, why: string, remedies: readonly Remedy[]) => Finding;

/** Each pair is told once, at its first end. */
function modeFindings(
  design: Design,
  bundles: Bundles,
  end: BundleEnd,
  opposites: readonly Opposite[],
  say: Say,
): Finding[] {
  const [first] = opposites;
  if (!first || (first.end && first.end.index < end.index)) return [];
  const pair = modePair(end.mode, first.end?.mode ?? 'none');
  if (pair.outcome === 'up') return [];
  const remedies = [...modeRemedies(end, opposites), ...farBundleRemedies(design, bundles, end, opposites)];
  const far = first.end ? `${first.name} is ${first.end.mode}` : `${first.name} has no bundle there`;
  const text = `it is ${end.mode} and ${far}`;
  return pair.outcome === 'down'
    ? [say('bundle-never-up', `${text}, so it never comes up`, pair.why, remedies)]
    : [say('bundle-one-sided', `${text}: only one end bundles`, pair.why, remedies)];
}

/** As drawn, and as the switches themselves report their neighbours. */
function strayFindings(
  design: Design,
  bundles: Bundles,
  end: BundleEnd,
  opposites: readonly Opposite[],
  say: Say,
): Finding[] {
  const seen = end.members.flatMap((m) => {
    const { at, farName } = bundles.members[m]!;
    const row = design.observed.find((each) => each.switch === at.switch && each.port === at.port);
    return row
      ? [
          {
            port: at.port,
            device: row.device,
            as: nameOfDevice(design, row.device),
            // A host reports nothing: what is seen of its cards is what their switch sees, the host itself.
            drawn: end.owner.kind === 'host' ? end.ownerName : farName.replace(/ (port|card) [^ ]*$/, ''),
          },
        ]
      : [];
  });
  const elsewhere = seen.filter(({ as, drawn }) => as !== drawn);
  const told = seen.map(({ port, as }) => `port ${port} sees ${as}`).join(', ');
  const evidence = seen.length > 0 ? ` The neighbour table: ${told}.` : '';
  const found: Finding[] = [];
  if (opposites.length > 1) {
    const where = opposites
      .map((each) => `${each.members.map((m) => bundles.members[m]!.id).join(', ')} to ${each.name}`)
      .join(', ');
    found.push(
      say(
        'bundle-split',
        `its cables lead to different places: ${where}`,
        `The members of one bundle must all lead to one bundle; those that lead elsewhere stay out.${evidence}`,
        strayRemedies(design, bundles, end, opposites),
      ),
    );
  }
  if (elsewhere.length > 0) {
    found.push(
      say(
        'bundle-neighbour',
        `the neighbour table has ${elsewhere.map(({ port, as, drawn }) => `${as} on port ${port}, where ${drawn} is drawn`).join('; ')}`,
        `A member whose cable leads elsewhere stays out of the bundle, whatever the drawing says.${evidence}`,
        [],
      ),
    );
  }
  return found;
}

const nameOfDevice = (design: Design, device: string): string => {
  const known =
    design.switches.find((sw) => sw.id === device || sw.name === device) ??
    design.hosts.find((host) => host.id === device || host.name === device);
  return known ? (known.name ?? known.id) : device;
};

function vlanFindings(
  design: Design,
  own: Bundle,
  end: BundleEnd,
  opposites: readonly Opposite[],
  say: Say,
): Finding[] {
  const [first] = opposites;
  const other = first?.end ? bundleOf(design, first.end) : null;
  if (!first?.end || !other || first.end.index < end.index || JSON.stringify(own.vlans) === JSON.stringify(other.vlans))
    return [];
  return [
    say(
      'bundle-vlans',
      `it carries ${carriageText(own.vlans)}, ${first.name} ${carriageText(other.vlans)}`,
      'A VLAN that only one end carries does not pass; untagged frames of different native VLANs change their VLAN.',
      vlanRemedies(design, end, opposites),
    ),
  ];
}

/** Members with settings of their own: what holds is the bundle's, until a member stands alone somewhere else. */
function memberFindings(design: Design, own: Bundle, say: Say): Finding[] {
  const ports = design.switches.find((sw) => sw.id === own.switch)!.ports.filter((port) => own.ports.includes(port.id));
  return ports.flatMap((port) => {
    const differs = ownSettings(port, own);
    if (differs.length === 0) return [];
    const commands: Command[] = [{ do: 'set-port', switch: own.switch, port: port.id, vlans: own.vlans }];
    if (port.cost !== undefined && port.cost !== own.cost)
      commands.push({ do: 'set-port-cost', switch: own.switch, port: port.id, tree: null, cost: own.cost ?? null });
    if (port.priority !== PORT_PRIORITY.default && port.priority !== own.priority)
      commands.push({ do: 'set-port-priority', switch: own.switch, port: port.id, tree: null, priority: own.priority });
    for (const [tree, set] of Object.entries(port.trees) as [TreeId, { cost?: number; priority?: number }][]) {
      if (set.cost !== undefined)
        commands.push({ do: 'set-port-cost', switch: own.switch, port: port.id, tree, cost: null });
      if (set.priority !== undefined)
        commands.push({ do: 'set-port-priority', switch: own.switch, port: port.id, tree, priority: null });
    }
    if (port.lacp?.key !== undefined)
      commands.push({ do: 'set-port', switch: own.switch, port: port.id, lacp: { key: null } });
    return [
      say(
        'bundle-member-settings',
        `port ${port.id} has its own ${differs.join(' and ')}`,
        'Settings live on the bundle; what a member says for itself does not hold, or keeps it out.',
        [{ label: `set port ${port.id} as the bundle`, commands }],
      ),
    ];
  });
}

function ownSettings(port: BridgePort, bundle: Bundle): string[] {
  const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
  return [
    ...(same(port.vlans, bundle.vlans) || same(port.vlans, DEFAULT_CARRIAGE)
      ? []
      : [`VLANs (${carriageText(port.vlans)}, the bundle ${carriageText(bundle.vlans)})`]),
    ...(port.cost !== undefined && port.cost !== bundle.cost ? [`cost (${port.cost})`] : []),
    ...(port.priority !== PORT_PRIORITY.default && port.priority !== bundle.priority
      ? [`port priority (${port.priority})`]
      : []),
    ...(Object.keys(port.trees).length > 0 && !same(port.trees, bundle.trees)
      ? [`settings in ${treesName(Object.keys(port.trees) as TreeId[])}`]
      : []),
    ...(port.lacp?.key !== undefined && port.lacp.key !== (bundle.key ?? bundle.number)
      ? [`key (${port.lacp.key}, the bundle's is ${bundle.key ?? bundle.number})`]
      : []),
  ];
}

function speedFindings({ members }: Bundles, end: BundleEnd, own: Bundle | null, say: Say): Finding[] {
  const speeds = [...new Set(end.members.map((m) => members[m]!.speed))];
  if (speeds.length < 2) return [];
  const remedies = own
    ? speeds.map((speed): Remedy => ({
        label: `set all members to ${speed} Mb/s`,
        commands: own.ports.map((port): Command => ({ do: 'set-port', switch: own.switch, port, speed })),
      }))
    : [];
  return [
    say(
      'bundle-speeds',
      `its members have different speeds, ${speeds.join(' and ')} Mb/s`,
      end.mode === 'static'
        ? 'A static end uses them all the same, and the slow ones hold up the flows that fall to them.'
        : 'LACP takes members of one speed only; the odd ones stand by.',
      remedies,
    ),
  ];
}

function countFindings(end: BundleEnd, own: Bundle | null, say: Say, isHalf: boolean): Finding[] {
  const count = end.members.length;
  const used = Math.min(count, end.maxActive);
  const shares = bucketShares(used);
  const least = (minLinks: number): Remedy[] =>
    own ? [{ label: `minimum links ${minLinks}`, commands: [{ do: 'set-bundle', bundle: own.id, minLinks }] }] : [];
  return [
    ...(count > end.maxActive
      ? [
          say(
            'bundle-over-limit',
            `${count} members, of which at most ${end.maxActive} are active`,
            'The others stand by and carry nothing until one is lost.',
            [],
          ),
        ]
      : []),
    ...(count === 1 && !isHalf
      ? [
          say(
            'bundle-single',
            'one member only',
            'It finds a fibre that carries one way only, but its loss is the loss of the link.',
            [],
          ),
        ]
      : []),
    ...(used > 2 && shares.most > shares.least
      ? [
          say(
            'bundle-uneven',
            `${used} active members share ${shares.of} buckets of the hash`,
            `Some members get ${shares.most} of them, some ${shares.least}: the load does not spread evenly.`,
            [],
          ),
        ]
      : []),
    ...(end.minLinks > used
      ? [
          say(
            'bundle-min-links',
            `at least ${end.minLinks} links are wanted, and at most ${used} can be active`,
            'It never comes up.',
            least(used),
          ),
        ]
      : end.minLinks > 1 && used - 1 < end.minLinks
        ? [
            say(
              'bundle-min-links',
              `the loss of one of ${used} members takes it down, since ${end.minLinks} are the minimum`,
              'A single failure takes the whole bundle out of service.',
              least(end.minLinks - 1),
            ),
          ]
        : []),
  ];
}

/** Links side by side that spanning tree blocks all but one of. */
function parallelFindings(design: Design): Finding[] {
  const nameOf = (id: string): string => design.switches.find((sw) => sw.id === id)?.name ?? id;
  return parallelsOf(design).flatMap(({ a, b, links }): Finding[] => {
    const free = links.filter((link) => [link.a, link.b].every((end) => !bundleAt(design, end.switch, end.port)));
    if (free.length < 2) return [];
    const made = bundleThese(
      design,
      free.map((link) => link.id),
    );
    return [
      {
        rule: 'parallel-links',
        text: `${nameOf(a)} to ${nameOf(b)}: ${free.length} links side by side are not bundled`,
        why: 'Spanning tree lets frames over one of them; the others stand idle.',
        at: { link: free[0]!.id },
        remedies: made.ok ? [{ label: 'bundle them at both ends', commands: made.value.commands }] : [],
      },
    ];
  });
}
