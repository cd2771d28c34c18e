/**
 * Guards: what a port does about BPDUs that it must never hear, and about those that it no longer hears. Of bridge ports, be
 * they ports or bundles, and what a switch sets for all of its edge ports. Restricted role and topology change, and BPDUs by
 * direction, are IEEE 802.1Q-2018 13.27; BPDU guard and loop guard are trade practice without a clause.
 */
import { z } from '../base/zod';
import { field, type Reader } from './field';
import { PROBE_INTERVAL, probeInterval, recoveryTime, stormLimit } from './legal';

/** A port whose test frame comes back loses its signal, or keeps it and lets no frame pass. */
export const PROBE_ACTIONS = ['shut', 'block'] as const;

/** `word` and `no-word` of a cabling line, with what it says where it is on. */
const inLine = (word: string, detail: string) =>
  ({
    kind: 'words',
    words: [
      [word, true, detail],
      [`no-${word}`, false],
    ],
  }) as const;
const onOff = (on: boolean | undefined): string => (on ? 'on' : 'off');

/** What is off unless it is set. */
const unlessSet = (label: string, reads: Reader, word: string, detail: string) =>
  field(z.boolean().default(false), { label, reads, text: onOff, line: inLine(word, detail) });

/** What an edge port has as its switch says, unless it says otherwise itself. */
const asSwitch = (label: string, word: string, detail: string) =>
  field(z.boolean().optional(), {
    label,
    reads: 'trees',
    absent: 'as its switch says',
    text: onOff,
    line: inLine(word, detail),
  });

/** A storm limit as people write it: `5%`, `500/s`, `500 frames/s`; undefined where it is none. Its size is not checked. */
export function readStormLimit(text: string): { most: number; of: 'percent' | 'frames' } | undefined {
  const [, most, unit] = /^\s*(\d[\d.e-]*)\s*(%|(?:frames)?\s*\/\s*s|frames)\s*$/i.exec(text) ?? [];
  return unit === undefined ? undefined : { most: Number(most), of: unit === '%' ? 'percent' : 'frames' };
}

/** Fields of a bridge port. */
export const portGuardFields = {
  autoEdge: field(z.boolean().default(true), {
    label: 'automatic edge',
    reads: 'run',
    done: (on) => (on ? 'becomes an edge port by itself' : 'an edge port only where it is set'),
    line: inLine('auto-edge', 'an edge port where no bridge is heard'),
  }),
  bpduGuard: asSwitch('BPDU guard', 'bpdu-guard', 'a BPDU shuts the port'),
  loopProbe: asSwitch('loop probe', 'loop-probe', 'a test frame that comes back stops the port'),
  /** What of broadcasts and unknown frames a port takes in. */
  stormLimit: field(stormLimit.optional(), {
    label: 'storm limit',
    reads: 'run',
    absent: 'none',
    text: (limit) => (limit ? `${limit.most}${limit.of === 'percent' ? ' %' : ' frames/s'}` : 'none'),
    whole: true,
    line: {
      kind: 'value',
      word: 'storm-limit',
      detail: 'most broadcasts and unknown frames that it takes in',
      what: 'a limit: 5% of the speed, or frames a second as 500/s',
      written: {
        as: (limit) => (limit ? `${limit.most}${limit.of === 'percent' ? '%' : '/s'}` : ''),
        read: readStormLimit,
      },
    },
  }),
  rootGuard: unlessSet('root guard', 'trees', 'root-guard', 'no root port, whatever it hears'),
  loopGuard: unlessSet('loop guard', 'run', 'loop-guard', 'discards where BPDUs stop coming'),
  restrictedTcn: unlessSet(
    'restricted topology change',
    'run',
    'restricted-tcn',
    'topology changes heard here are not passed on',
  ),
  bpduRx: field(z.boolean().default(true), {
    label: 'incoming BPDUs',
    reads: 'trees',
    text: (on) => (on ? 'taken in' : 'discarded'),
    line: inLine('bpdu-rx', 'takes BPDUs in'),
  }),
  bpduTx: field(z.boolean().default(true), {
    label: 'outgoing BPDUs',
    reads: 'trees',
    text: (on) => (on ? 'sent' : 'not sent'),
    line: inLine('bpdu-tx', 'sends BPDUs'),
  }),
};

/** Fields of a switch. */
export const switchGuardFields = {
  edgeBpduGuard: unlessSet('BPDU guard on edge ports', 'trees', 'edge-bpdu-guard', 'a BPDU shuts each edge port'),
  edgeLoopProbe: unlessSet('loop probe on edge ports', 'trees', 'edge-loop-probe', 'test frames on each edge port'),
  /** Whether a BPDU of a VLAN's tree that arrives in another VLAN has its port held in both (trade practice). */
  vlanCheck: unlessSet('VLAN check', 'trees', 'vlan-check', 'holds a port at which VLANs differ'),
  /** Whether a region's port to a per-VLAN bridge is held while not all its VLANs have their root on the side of the CIST's (trade practice). */
  rootCheck: unlessSet('root check', 'trees', 'root-check', 'holds a port out of the region where roots differ'),
  /** Whether a BPDU of a per-VLAN bridge's own that arrives at a port holds it (trade practice). */
  ownCheck: unlessSet('own BPDU check', 'trees', 'own-check', 'holds a port at which own BPDUs arrive'),
  probeInterval: field(probeInterval.default(PROBE_INTERVAL.default), {
    label: 'interval of loop probes',
    unit: 's',
    reads: 'run',
    line: {
      kind: 'value',
      word: 'probe-interval',
      detail: 'seconds between loop probes',
      what: `seconds from ${PROBE_INTERVAL.min} to ${PROBE_INTERVAL.max}`,
    },
  }),
  probeAction: field(z.enum(PROBE_ACTIONS).default('shut'), {
    label: 'what a loop probe does',
    reads: 'trees',
    text: (action) => (action === 'shut' ? 'shuts the port' : 'blocks it'),
    line: {
      kind: 'words',
      words: [
        ['probe-shuts', 'shut', 'a loop probe that comes back shuts the port'],
        ['probe-blocks', 'block', 'a loop probe that comes back blocks the port'],
      ],
    },
  }),
  unmanned: field(z.boolean().default(false), {
    label: 'place',
    reads: 'nothing',
    text: (unmanned) => (unmanned ? 'unmanned' : 'manned'),
    done: (unmanned) => (unmanned ? 'in an unmanned place' : 'in a manned place'),
    line: {
      kind: 'words',
      words: [
        ['unmanned', true, 'nobody is near to open a port'],
        ['manned', false],
      ],
    },
  }),
  recovery: field(recoveryTime.optional(), {
    label: 'recovery of shut ports',
    unit: 's',
    reads: 'run',
    absent: 'off',
    line: {
      kind: 'value',
      word: 'recovery',
      detail: 'shut ports open again after so many seconds',
      what: 'seconds from 30 to 86400',
    },
  }),
};

/** Octets that the shortest frame takes on the line, with what is before and between frames (IEEE 802.3 4.4.2). */
const SHORTEST = 84;

/** Frames a second that a port with a storm limit takes in; `speed` in Mb/s. */
export const stormRate = (limit: z.output<typeof stormLimit>, speed: number): number =>
  limit.of === 'frames' ? limit.most : Math.floor((limit.most / 100) * ((speed * 1_000_000) / (SHORTEST * 8)));

interface GuardedPort {
  readonly edge: boolean;
  readonly bpduGuard?: boolean | undefined;
  readonly loopProbe?: boolean | undefined;
}

/** Whether a BPDU shuts a port: as it says itself, an edge port otherwise as its switch does. */
export const hasBpduGuard = ({ edge, bpduGuard }: GuardedPort, sw: { readonly edgeBpduGuard: boolean }): boolean =>
  bpduGuard ?? (edge && sw.edgeBpduGuard);

/** Whether test frames go out of a port, likewise. */
export const hasLoopProbe = ({ edge, loopProbe }: GuardedPort, sw: { readonly edgeLoopProbe: boolean }): boolean =>
  loopProbe ?? (edge && sw.edgeLoopProbe);

/** Why a port is shut, by the code that stands for it in networks and recordings; 0: it is not. One that is blocked keeps its signal. */
export const SHUT_BY = { nothing: 0, bpduGuard: 1, loopProbe: 2, loopProbeBlocks: 3, pairWaits: 4 } as const;

const SHUT_TEXTS: Readonly<Record<number, string>> = {
  [SHUT_BY.bpduGuard]: 'shut by BPDU guard',
  [SHUT_BY.loopProbe]: 'shut by loop probe',
  [SHUT_BY.loopProbeBlocks]: 'blocked by loop probe',
  [SHUT_BY.pairWaits]: 'down: its switch, back in its pair, waits',
};
/** `shut by BPDU guard`. */
export const shutText = (code: number): string => SHUT_TEXTS[code]!;
