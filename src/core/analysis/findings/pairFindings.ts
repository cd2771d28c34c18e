/** Findings about pairs: halves that cannot be one, and what falls apart when a switch, the peer link or the keepalive is lost. */
import type { Bundle, Design } from '../../model/document';
import { keepaliveName } from '../../model/document';
import { VlanSet } from '../../model/vlanSet';
import { pairsOf, type Pair, type PairBundle, type PairedSwitch } from '../../topology/pairs';
import { carried } from '../../topology/trees';
import { switchName } from '../../tree/explain/phrases';
import type { Finding, Remedy } from './finding';

export function pairFindings(design: Design): Finding[] {
  const pairs = pairsOf(design);
  const paired = new Set(pairs.flatMap(({ switches }) => switches.map(({ id }) => id)));
  const lone = design.switches.filter((sw): sw is PairedSwitch => sw.pair !== undefined && !paired.has(sw.id));
  return [
    ...lone.map((sw) => halfMade(sw, lone.length === 2 ? lone.find((other) => other !== sw)! : null)),
    ...pairs.flatMap((pair) => [
      ...unlike(pair),
      ...apart(pair),
      ...keepalive(pair),
      ...pair.bundles.flatMap((bundle) => unlikeHalves(pair, bundle)),
      ...oneLegged(design, pair),
      ...priorities(pair),
      ...peerVlans(design, pair),
      ...orphans(design, pair),
    ]),
  ];
}

const namesOf = ({ switches }: Pair): string => switches.map(switchName).join(' and ');

/** `other`: the only one that may be meant. */
const halfMade = (sw: PairedSwitch, other: PairedSwitch | null): Finding => ({
  rule: 'pair-half',
  text: `${switchName(sw)} is half of a pair: no other switch is in domain ${sw.pair.domain}`,
  why: 'Its pair bundles go by the address of the pair, and nobody shares them.',
  at: { switch: sw.id },
  remedies: [
    ...(other
      ? [
          {
            label: `put ${switchName(other)} in domain ${sw.pair.domain}`,
            commands: [{ do: 'set-pair' as const, switch: other.id, domain: sw.pair.domain }],
          },
        ]
      : []),
    { label: 'no pair', commands: [{ do: 'set-switch', switch: sw.id, pair: null }] },
  ],
});

function unlike(pair: Pair): Finding[] {
  if (pair.unlike.length === 0) return [];
  const [one, other] = pair.switches;
  const remedies: Remedy[] = [
    ...(one.dialect === other.dialect && one.region === other.region
      ? []
      : [
          {
            label: `give ${switchName(other)} the mode of ${switchName(one)}`,
            commands: [
              { do: 'set-switch' as const, switch: other.id, dialect: one.dialect, region: one.region ?? null },
            ],
          },
        ]),
    ...(one.pair.mac === other.pair.mac
      ? []
      : [
          {
            label: `give ${switchName(other)} the address ${one.pair.mac}`,
            commands: [{ do: 'set-pair' as const, switch: other.id, mac: one.pair.mac }],
          },
        ]),
  ];
  return [
    {
      rule: 'pair-unlike',
      text: `${namesOf(pair)} cannot be a pair; unlike are their ${pair.unlike.join(', ')}`,
      why: 'Each acts for itself, and whoever has a bundle to both sees two switches there.',
      at: { switch: other.id },
      remedies,
    },
  ];
}

function apart(pair: Pair): Finding[] {
  const [one, other] = pair.switches;
  if (pair.state === 'yields')
    return [
      {
        rule: 'pair-apart',
        text: `${namesOf(pair)} have lost their peer link: ${switchName(other)} has taken its pair bundles down`,
        why: `It hears by the keepalive that ${switchName(one)} lives. Whatever hangs on ${switchName(other)} alone is cut off from what is behind these bundles.`,
        at: { switch: other.id },
        remedies: plugIn(pair),
      },
    ];
  if (pair.state !== 'both-alone') return [];
  return [
    {
      rule: 'pair-twice',
      text: `${namesOf(pair)} have lost each other: both take themselves for the pair`,
      why: 'Two switches have one identity. Their partners go on sending to both, and what one of them has learnt the other does not know.',
      at: { switch: other.id },
      remedies: plugIn(pair),
    },
  ];
}

const plugIn = ({ peerLinks }: Pair): Remedy[] =>
  peerLinks.some(({ up }) => !up)
    ? [
        {
          label: 'plug the peer link in',
          commands: peerLinks.flatMap(({ id, up }) => (up ? [] : [{ do: 'set-link' as const, link: id, up: true }])),
        },
      ]
    : [];

function keepalive(pair: Pair): Finding[] {
  const weak = pair.switches.filter(({ pair: half }) => half.keepalive === 'none' || half.keepalive === 'peer-link');
  const [one, other] = pair.switches;
  if (weak.length > 0)
    return [
      {
        rule: 'pair-keepalive',
        text: `${namesOf(pair)} have ${weak.some((sw) => sw.pair.keepalive === 'none') ? 'no keepalive' : 'their keepalive over the peer link'}`,
        why: 'Once the peer link is lost neither knows whether the other one lives, and both take themselves for the pair.',
        at: { switch: weak[0]!.id },
        remedies: [
          {
            label: `keepalive ${keepaliveName('out-of-band')}`,
            commands: weak.map(({ id }) => ({
              do: 'set-pair' as const,
              switch: id,
              keepalive: 'out-of-band' as const,
            })),
          },
        ],
      },
    ];
  if (one.pair.keepalive !== 'own-link' || pair.keepaliveUp || !one.up || !other.up) return [];
  return [
    {
      rule: 'pair-keepalive-lost',
      text: `${namesOf(pair)} do not hear each other's keepalive: no cable that carries joins the ports for it`,
      why: 'Once the peer link is lost too, both take themselves for the pair.',
      at: { switch: one.id, port: one.pair.keepalivePort! },
      remedies: [],
    },
  ];
}

function unlikeHalves(pair: Pair, { number, halves: [own, other], unlike: what }: PairBundle): Finding[] {
  if (what.length === 0) return [];
  const [one, second] = pair.switches.map(switchName);
  const { vlans, mode, key } = own;
  return [
    {
      rule: 'pair-bundle-unlike',
      text: `Pair bundle ${number} of ${one} and ${second}: unlike are the ${what.join(', ')} of its halves`,
      why: `${second} takes its half down until they agree.`,
      at: { switch: other.switch, port: other.id },
      remedies: [
        {
          label: `set the half of ${second} as that of ${one}`,
          commands: [{ do: 'set-bundle', bundle: other.id, vlans, mode, key: key ?? null }],
        },
      ],
    },
  ];
}

function oneLegged({ bundles }: Design, { switches, bundles: whole }: Pair): Finding[] {
  return bundles.flatMap((bundle): Finding[] => {
    const { pairNumber } = bundle;
    const at = switches.findIndex(({ id }) => id === bundle.switch);
    if (pairNumber === undefined || at < 0 || whole.some(({ number }) => number === pairNumber)) return [];
    return [
      {
        rule: 'pair-bundle-half',
        text: `Pair bundle ${pairNumber} of ${switchName(switches[at]!)} has no other half at ${switchName(switches[1 - at]!)}`,
        why: 'It ends with its switch: the pair is no help to whoever hangs on it.',
        at: { switch: bundle.switch, port: bundle.id },
        remedies: [],
      },
    ];
  });
}

/** What decides who is root, said unlike by both switches of a pair. */
function priorities(pair: Pair): Finding[] {
  const [one, other] = pair.switches;
  const trees = [...new Set([...Object.keys(one.trees), ...Object.keys(other.trees)])] as (keyof typeof one.trees)[];
  const of = (sw: PairedSwitch, tree: keyof typeof one.trees): number => sw.trees[tree]?.priority ?? sw.priority;
  const differ = trees.filter((tree) => of(one, tree) !== of(other, tree));
  if (one.priority === other.priority && differ.length === 0) return [];
  return [
    {
      rule: 'pair-priorities',
      text: `${namesOf(pair)} have unlike bridge priorities`,
      why: `The pair goes by those of ${switchName(one)}. Once that is lost ${switchName(other)} goes by its own, and the root may move.`,
      at: { switch: other.id, trees: differ },
      remedies: [
        {
          label: `set ${switchName(other)} as ${switchName(one)}`,
          commands: [
            { do: 'set-bridge-priority', tree: null, switch: other.id, priority: one.priority },
            ...differ.map((tree) => ({
              do: 'set-bridge-priority' as const,
              tree,
              switch: other.id,
              priority: one.trees[tree]?.priority ?? null,
            })),
          ],
        },
      ],
    },
  ];
}

/** VLANs of either switch's other ports that the peer link does not carry. */
function peerVlans({ bundles, vlans }: Design, pair: Pair): Finding[] {
  const own = (sw: PairedSwitch): Bundle | undefined => bundles.find(({ id }) => id === sw.pair.peerLink);
  const [peer, far] = pair.switches.map(own);
  if (!peer || !far) return [];
  const over = carried(peer.vlans).intersect(carried(far.vlans));
  const needed = pair.bundles
    .flatMap(({ halves }) => halves.map((half) => carried(half.vlans)))
    .reduce((all, each) => all.union(each), VlanSet.empty);
  const missing = VlanSet.empty.with(
    [1, ...vlans.map(({ id }) => id)].filter((vid) => needed.has(vid) && !over.has(vid)),
  );
  if (missing.isEmpty) return [];
  const all = over.union(missing).format();
  return [
    {
      rule: 'pair-peer-vlans',
      text: `The peer link of ${namesOf(pair)} does not carry VLAN ${missing.format()}, which their pair bundles do`,
      why: 'What hangs on one of them alone is not reached from the other one, and nothing is left once a bundle has one half.',
      at: { switch: peer.switch, port: peer.id },
      remedies: [
        {
          label: `carry VLANs ${all} on it`,
          commands: [peer, far].map(({ id }) => ({
            do: 'set-bundle' as const,
            bundle: id,
            vlans: { mode: 'trunk' as const, native: 1, allowed: all },
          })),
        },
      ],
    },
  ];
}

/** Hosts that hang on one switch of a pair by several cards: the second one does not help when that switch is lost. */
function orphans({ hosts }: Design, pair: Pair): Finding[] {
  return pair.switches.flatMap((sw): Finding[] => {
    const own = hosts.filter(({ attach }) => attach.length > 1 && attach.every((at) => at.switch === sw.id));
    if (own.length === 0) return [];
    const names = own.map(({ id, name }) => name ?? id).join(', ');
    return [
      {
        rule: 'pair-orphans',
        text: `${names} ${own.length === 1 ? 'hangs' : 'hang'} on ${switchName(sw)} by all cards, and not on the pair`,
        why: 'Two cards are there to outlive a switch: here both are lost with one.',
        at: { switch: sw.id, port: own[0]!.attach[0]!.port },
        remedies: [],
      },
    ];
  });
}
