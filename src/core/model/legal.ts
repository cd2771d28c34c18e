/**
 * The legal values of what an engineer may set, each as a zod schema whose error says what is allowed.
 * Sources: IEEE 802.1Q-2018 clauses 13.26 (identifiers) and 13.27 (costs), Table 13-5 (timers).
 */
import { z } from '../base/zod';
import { MAX_VLAN, MIN_VLAN, VlanSet } from './vlanSet';

/** Highest bridge priority and the step between legal ones (802.1Q-2018 13.26.3). */
export const BRIDGE_PRIORITY = { min: 0, max: 61440, step: 4096, default: 32768 } as const;
/** Highest port priority and the step between legal ones (802.1Q-2018 13.27.44). */
export const PORT_PRIORITY = { min: 0, max: 240, step: 16, default: 128 } as const;
/** The largest path cost of each method (802.1D-1998 8.10.2, 802.1Q-2018 13.27.33). */
export const MAX_COST = { short: 65_535, long: 200_000_000 } as const;

/** What a number may be: a range, on a grid of `step`. */
export interface Grid {
  readonly min: number;
  readonly max: number;
  readonly step: number;
}

/** The legal values on both sides of a value that is off the grid, lower first; one when it lies outside. */
export function nearestLegal(value: number, grid: Grid): number[] {
  if (!Number.isFinite(value)) return [];
  if (value <= grid.min) return [grid.min];
  if (value >= grid.max) return [grid.max];
  const below = grid.min + Math.floor((value - grid.min) / grid.step) * grid.step;
  return below === value ? [value] : [below, below + grid.step];
}

/** One sentence on what a grid allows, with the values nearest to the one found. */
export function gridText(value: number, grid: Grid): string {
  const range = `${grid.min} to ${grid.max} in steps of ${grid.step}`;
  const nearest = nearestLegal(value, grid);
  return nearest.length === 0 ? range : `${range}; nearest: ${nearest.join(' and ')}`;
}

const onGrid = (grid: Grid) =>
  z.number().superRefine((value, ctx) => {
    const [nearest] = nearestLegal(value, grid);
    if (nearest !== value) ctx.addIssue({ code: 'custom', message: gridText(value, grid) });
  });

const whole = (min: number, max: number, what: string) =>
  z.number().superRefine((value, ctx) => {
    if (!Number.isInteger(value) || value < min || value > max) {
      ctx.addIssue({ code: 'custom', message: `${what}, a whole number from ${min} to ${max}` });
    }
  });

/** 0 to 61440 in steps of 4096. */
export const bridgePriority = onGrid(BRIDGE_PRIORITY);
/** 0 to 240 in steps of 16. */
export const portPriority = onGrid(PORT_PRIORITY);
/** 1 to 200 000 000; the short method's smaller limit is checked where the method is known. */
export const pathCost = whole(1, MAX_COST.long, 'a path cost');
/** Mbit/s. */
export const speed = z.number().superRefine((value, ctx) => {
  if (!(value > 0 && value <= 10_000_000)) {
    ctx.addIssue({ code: 'custom', message: 'a speed in Mbit/s above 0 and up to 10000000 (1 Gb/s is 1000)' });
  }
});
/** Twelve bits of a port identifier, 0 not being a port. */
export const portNumber = whole(1, 4095, 'a port number');
/** Sixteen bits: priorities of LACP's systems and ports, and keys (802.1AX-2020 6.3.2 to 6.3.5). */
export const LACP_PRIORITY = { min: 0, max: 65_535, default: 32_768 } as const;
export const lacpPriority = whole(LACP_PRIORITY.min, LACP_PRIORITY.max, 'an LACP priority');
export const lacpKey = whole(0, 65_535, 'a key of sixteen bits');
/** How many members may be active at once where a bundle does not say, and at the most. */
export const ACTIVE_MEMBERS = { min: 1, max: 64, default: 8 } as const;
export const memberCount = whole(ACTIVE_MEMBERS.min, ACTIVE_MEMBERS.max, 'a number of members');
/** Boxes of a stack, and how much each wants to be its master. */
export const stackMemberNumber = whole(1, 16, 'a number of a stack member');
export const MASTER_PRIORITY = { min: 1, max: 15, default: 1 } as const;
export const masterPriority = whole(MASTER_PRIORITY.min, MASTER_PRIORITY.max, 'a priority to be master');
/** Pairs: a number that both switches of one have, which of them is primary, and how long one that comes back waits. */
export const pairDomain = whole(1, 4095, 'a domain of a pair');
export const PAIR_PRIORITY = { min: 1, max: 65_535, default: 32_768 } as const;
export const pairPriority = whole(PAIR_PRIORITY.min, PAIR_PRIORITY.max, 'a priority in a pair');
/** Seconds. */
export const PAIR_DELAY = { min: 0, max: 3600, default: 30 } as const;
export const pairDelay = whole(PAIR_DELAY.min, PAIR_DELAY.max, 'a delay in seconds').default(PAIR_DELAY.default);
export const pairNumber = whole(1, 2047, 'a number of a pair bundle');
export const vlanId = whole(MIN_VLAN, MAX_VLAN, 'a VLAN ID');
/** Twelve bits; 0 is the IST. */
export const mstid = whole(1, 4094, 'an MSTID');

/** The longest VLAN set as text; every VLAN listed one by one needs half of it. */
const MAX_VLAN_TEXT = 40_000;

/** A VLAN set as text, made canonical. */
export const vlanSetText = z.string().transform((text, ctx) => {
  if (text.length > MAX_VLAN_TEXT) {
    ctx.addIssue({ code: 'custom', message: `VLAN IDs and ranges in at most ${MAX_VLAN_TEXT} characters` });
    return z.NEVER;
  }
  const parsed = VlanSet.parse(text);
  if (parsed.ok) return parsed.value.format();
  ctx.addIssue({
    code: 'custom',
    message: `${parsed.error.allowed}; ${parsed.error.found} at character ${parsed.error.at + 1}`,
  });
  return z.NEVER;
});

/** An individual (not group) MAC address, six octets in hexadecimal with colons, made lower case. */
export const macAddress = z.string().transform((text, ctx) => {
  const mac = text.toLowerCase();
  if (/^[0-9a-f][02468ace](:[0-9a-f]{2}){5}$/.test(mac)) return mac;
  ctx.addIssue({ code: 'custom', message: 'an individual MAC address such as 02:4b:00:00:00:0a' });
  return z.NEVER;
});

/** The least and the most of each timer (802.1D-1998 table 8-3, 802.1Q-2018 table 13-5). */
export const TIMER_RANGES = {
  hello: { min: 1, max: 10 },
  maxAge: { min: 6, max: 40 },
  forwardDelay: { min: 4, max: 30 },
  maxHops: { min: 6, max: 40 },
  txHold: { min: 1, max: 10 },
  ageIncrement: { min: 1, max: 256 },
} as const;
const timer = (key: keyof typeof TIMER_RANGES, what: string) =>
  whole(TIMER_RANGES[key].min, TIMER_RANGES[key].max, what);

/** When a port that a guard shut opens again by itself, seconds: trade practice. */
export const RECOVERY = { min: 30, max: 86_400, default: 300 } as const;
/** How often a switch sends its test frames, seconds: trade practice. */
export const PROBE_INTERVAL = { min: 1, max: 300, default: 5 } as const;
export const probeInterval = whole(PROBE_INTERVAL.min, PROBE_INTERVAL.max, 'an interval in seconds');
/** A ceiling on broadcasts and unknown frames of a port: per cent of its speed, or frames a second. */
export const stormLimit = z
  .strictObject({ most: z.number(), of: z.enum(['percent', 'frames']) })
  .superRefine(({ most, of }, ctx) => {
    const ok = most > 0 && (of === 'percent' ? most <= 100 : Number.isInteger(most) && most <= 1_000_000_000);
    if (!ok)
      ctx.addIssue({
        code: 'custom',
        message:
          of === 'percent'
            ? 'above 0 and up to 100 per cent'
            : 'a whole number of frames a second from 1 to 1000000000',
      });
  });
export const recoveryTime = whole(RECOVERY.min, RECOVERY.max, 'a time of recovery in seconds');

/** Timers in seconds (the increment of the message age in 256ths, as BPDUs carry it), each within its own range; the rule that joins them is a finding, not an error (13.26.6). */
export const timerSchemas = {
  hello: timer('hello', 'a hello time in seconds'),
  maxAge: timer('maxAge', 'a max age in seconds'),
  forwardDelay: timer('forwardDelay', 'a forward delay in seconds'),
  maxHops: timer('maxHops', 'a number of hops'),
  txHold: timer('txHold', 'a transmit hold count'),
  ageIncrement: timer('ageIncrement', 'a message age increment in 256ths of a second'),
} as const;
