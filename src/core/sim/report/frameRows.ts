/** Frames of a run, field by field: BPDUs beside what the port that they come to holds. */
import type { BridgePortId, SwitchId, TreeId } from '../../model/ids';
import type { MstBpdu, RstBpdu, RstFlags } from '../../modes/bpdu';
import type { Micros } from '../../modes/entity';
import type { Vector } from '../../modes/vector';
import { bridgeIdText } from '../../topology/bridgeId';
import type { Network } from '../../topology/network';
import { costText } from '../../tree/explain/vector';
import type { BridgeKeys } from '../engine/bridgeKeys';
import { negotiationOf } from '../../topology/lag/ends';
import { type Participant, STATE_BITS } from '../../modes/lacp/state';
import type { SentFrames } from './capture';
import type { SentLog, SentLacpdu } from '../trace/sentLog';

/** A field of a BPDU; `held` is what the receiving port has in its place, null where it has nothing to compare. */
export interface FrameField {
  readonly name: string;
  readonly value: string;
  readonly held: string | null;
  /** Whether what is heard is better than what is held, worse or the same; null where they do not compare. */
  readonly than: 'better' | 'worse' | 'same' | null;
}

export interface FrameRow {
  readonly t: Micros;
  readonly from: { readonly switch: SwitchId; readonly port: BridgePortId };
  readonly to: { readonly switch: SwitchId; readonly port: BridgePortId } | null;
  /** Null for an LACPDU, which is about no tree. */
  readonly tree: TreeId | null;
  readonly kind: string;
  /** Flags that are set, in words. */
  readonly says: string;
  readonly fields: readonly FrameField[];
}

const KINDS = { config: 'Configuration', tcn: 'Topology change notification', rst: 'RST', mst: 'MST' } as const;

/** Rows of the ports that are wanted in the order of time; `left` is how many more there are. LACPDUs are of no tree. */
export function frameRows(
  network: Network,
  trees: readonly TreeId[],
  keys: BridgeKeys,
  { sent, negotiation }: SentFrames,
  wanted: (port: number, tree: number | null) => boolean,
  most: number,
): { readonly rows: FrameRow[]; readonly left: number } {
  const bpdus = bpduRows(network, trees, keys, sent, wanted, most);
  const lacpdus = negotiation.filter(({ member }) => wanted(socketOf(network, member), null));
  const first = lacpdus.slice(0, most).map((each) => lacpRow(network, each));
  const rows = [...bpdus.rows, ...first].sort((a, b) => a.t - b.t).slice(0, most);
  return { rows, left: bpdus.left + bpdus.rows.length + lacpdus.length - rows.length };
}

const socketOf = ({ bundles, portIndexOf }: Network, member: number): number =>
  portIndexOf(bundles.members[member]!.at.switch, bundles.members[member]!.at.port);

/** An LACPDU beside what the other end's bundle is told: both participants, every bit that is set in words. */
function lacpRow(network: Network, { t, member, lacpdu: { actor, partner } }: SentLacpdu): FrameRow {
  const { bundles, plug, switches, owner, ports } = network;
  const { at, end } = bundles.members[member]!;
  const fromHost = bundles.ends[end]!.owner.kind === 'host';
  const far = plug[socketOf(network, member)]!;
  const to = fromHost ? at : far < 0 ? null : { switch: switches[owner[far]!]!.id, port: ports[far]!.id };
  const plain = (name: string, value: string): FrameField => ({ name, value, held: null, than: null });
  const side = (
    name: string,
    { systemPriority, system, key, portPriority, port, state }: Participant,
  ): FrameField[] => [
    plain(`${name} system`, `${systemPriority}.${system}`),
    plain(`${name} key`, String(key)),
    plain(`${name} port`, `${portPriority}.${port}`),
    plain(`${name} state`, STATE_BITS.filter((bit) => state[bit]).join(', ') || 'no bit set'),
  ];
  return {
    t,
    from: at,
    to,
    tree: null,
    kind: negotiationOf(bundles.ends[end]!.mode) === 'legacy' ? 'Legacy' : 'LACP',
    says: `${fromHost ? `from ${bundles.ends[end]!.ownerName}: ` : ''}${STATE_BITS.filter((bit) => actor.state[bit]).join(', ')}`,
    fields: [...side('Actor', actor), ...side('Partner', partner)],
  };
}

function bpduRows(
  network: Network,
  trees: readonly TreeId[],
  keys: BridgeKeys,
  log: SentLog,
  wanted: (port: number, tree: number) => boolean,
  most: number,
): { readonly rows: FrameRow[]; readonly left: number } {
  const rows: FrameRow[] = [];
  let left = 0;
  for (let i = 0; i < log.count; i += 1) {
    const { t, tree, port, bpdu, held } = log.at(i);
    if (!wanted(port, tree)) continue;
    if (rows.length === most) {
      left += 1;
      continue;
    }
    const endOf = (p: number) => ({ switch: network.switches[network.owner[p]!]!.id, port: network.ports[p]!.id });
    const far = network.far[port]!;
    const says =
      bpdu.kind === 'tcn'
        ? ''
        : bpdu.kind === 'config'
          ? [bpdu.tc && 'topology change', bpdu.tcAck && 'acknowledgement'].filter(Boolean).join(', ')
          : flagText(bpdu);
    rows.push({
      t,
      from: endOf(port),
      to: far < 0 ? null : endOf(far),
      tree: trees[tree]!,
      kind: KINDS[bpdu.kind],
      says,
      fields:
        bpdu.kind === 'tcn'
          ? []
          : [
              ...vectorFields(keys, bpdu.vector, held, bpdu.kind === 'mst'),
              ...timeFields(bpdu.times),
              ...(bpdu.kind === 'mst' ? mstFields(keys, bpdu) : []),
            ],
    });
  }
  return { rows, left };
}

const flagText = (bpdu: RstFlags): string =>
  [
    `${bpdu.role} port`,
    bpdu.proposal && 'proposal',
    bpdu.agreement && 'agreement',
    bpdu.learning && 'learning',
    bpdu.forwarding && 'forwarding',
    bpdu.tc && 'topology change',
  ]
    .filter(Boolean)
    .join(', ');

const portText = (id: number): string => `${id >> 8}.${id & 255}`;

function vectorFields(keys: BridgeKeys, heard: Vector, held: Vector | null, regions: boolean): FrameField[] {
  const id = (key: number): string => bridgeIdText(keys.idOf(key));
  const field = (name: string, part: keyof Vector, text: (value: number) => string): FrameField => ({
    name,
    value: text(heard[part]),
    held: held ? text(held[part]) : null,
    than: held ? (heard[part] < held[part] ? 'better' : heard[part] > held[part] ? 'worse' : 'same') : null,
  });
  return [
    field('Root bridge ID', 'root', id),
    field(regions ? 'External root path cost' : 'Root path cost', 'externalCost', costText),
    ...(regions
      ? [field('Regional root ID', 'regionalRoot', id), field('Internal root path cost', 'internalCost', costText)]
      : []),
    field('Bridge ID', 'bridge', id),
    field('Port ID', 'port', portText),
  ];
}

const timeFields = (times: RstBpdu['times']): FrameField[] =>
  (
    [
      ['Message age', times.messageAge],
      ['Max age', times.maxAge],
      ['Hello time', times.hello],
      ['Forward delay', times.forwardDelay],
    ] as const
  ).map(([name, seconds]) => ({ name, value: `${Math.round(seconds * 256) / 256} s`, held: null, than: null }));

function mstFields(
  keys: BridgeKeys,
  { configurationId: { name, revision, digest }, times, instances }: MstBpdu,
): FrameField[] {
  const plain = (label: string, value: string): FrameField => ({ name: label, value, held: null, than: null });
  return [
    plain('Region', `${name || '(no name)'}, revision ${revision}`),
    plain('Configuration digest', digest),
    plain('Remaining hops', String(times.remainingHops)),
    ...instances.map((message) =>
      plain(
        `Instance ${message.mstid}`,
        `${flagText(message)}; regional root ${bridgeIdText(keys.idOf(message.vector.regionalRoot))} at ${costText(message.vector.internalCost)}`,
      ),
    ),
  ];
}
