/** What the inspector's texts mean: text in, a legal value or a fault with suggestions out. */
import {
  MASTER_PRIORITY,
  PAIR_DELAY,
  PAIR_PRIORITY,
  BRIDGE_PRIORITY,
  MAX_COST,
  PORT_PRIORITY,
  PROBE_INTERVAL,
  RECOVERY,
  macAddress,
  nearestLegal,
  stormLimit as limitSchema,
  timerSchemas,
  type Grid,
} from '../../core/model/legal';
import { readStormLimit } from '../../core/model/guard';
import { MAX_NAME, titleSchema, type Carriage, type Design } from '../../core/model/document';
import { MAX_VLAN, VlanSet } from '../../core/model/vlanSet';
import { fail, ok, type Result } from '../../core/base/result';
import { readSpeed, readWhole } from './words/units';
import type { FieldFault } from './fields';

type Reading<T> = Result<T, FieldFault>;

const optional =
  <T>(read: (text: string) => Reading<T>) =>
  (text: string): Reading<T | null> =>
    text.trim() === '' ? ok(null) : read(text);

const onGrid =
  (grid: Grid, what: string) =>
  (text: string): Reading<number> => {
    const range = `${what} is ${grid.min} to ${grid.max} in steps of ${grid.step}`;
    const value = readWhole(text);
    if (!value.ok) return fail({ message: `${range}.` });
    const nearest = nearestLegal(value.value, grid);
    if (nearest[0] === value.value) return ok(value.value);
    return fail({ message: `${range}; ${value.value} is not.`, suggestions: nearest.map(String) });
  };

/** An empty text means: no value of its own. */
export const bridgePriority = optional(onGrid(BRIDGE_PRIORITY, 'A bridge priority'));
export const portPriority = optional(onGrid(PORT_PRIORITY, 'A port priority'));

export const pathCost = (method: Design['pathCost']) =>
  optional((text): Reading<number> => {
    const most = MAX_COST[method];
    const value = readWhole(text);
    if (value.ok && value.value >= 1 && value.value <= most) return ok(value.value);
    return fail({ message: `A path cost is 1 to ${most} (${method} method); empty for the speed's own.` });
  });

export const speed = (text: string): Reading<number> => {
  const value = readSpeed(text);
  return value.ok ? value : fail({ message: value.error });
};

export const name = (text: string): Reading<string> => {
  const parsed = titleSchema.safeParse(text.trim());
  return parsed.success ? ok(parsed.data) : fail({ message: `A name is one line of 1 to ${MAX_NAME} characters.` });
};

export const mac = (text: string): Reading<string> => {
  const parsed = macAddress.safeParse(text.trim().replaceAll('-', ':'));
  return parsed.success ? ok(parsed.data) : fail({ message: 'An individual MAC address such as 02:4b:00:00:00:0a.' });
};

export const vlans = (text: string): Reading<string> => {
  const parsed = VlanSet.parse(text);
  if (parsed.ok) return ok(parsed.value.format());
  return fail({ message: `${parsed.error.found} at character ${parsed.error.at + 1}; write ${parsed.error.allowed}.` });
};

/** VLANs, or empty for all. */
export const someVlans = optional(vlans);

/** Microseconds, or empty for a cable of usual length. */
export const linkDelay = optional((text): Reading<number> => {
  const value = readWhole(text.replace(/\s*(µs|us)$/, ''));
  if (value.ok && value.value >= 1 && value.value <= 1_000_000) return ok(value.value);
  return fail({ message: 'A delay is 1 to 1000000 µs (5 µs for each kilometre of fibre); empty for a short cable.' });
});

/** How much a member wants to be master of its stack. */
export const masterPriority = (text: string): Reading<number> => {
  const value = readWhole(text);
  const { min, max } = MASTER_PRIORITY;
  return value.ok && value.value >= min && value.value <= max
    ? value
    : fail({ message: `A whole number from ${min} to ${max}.` });
};

/** A timer in seconds, or a count, within its own range (802.1Q-2018 Table 13-5). */
export const timer =
  (key: keyof typeof timerSchemas) =>
  (text: string): Reading<number> => {
    const value = readWhole(text);
    const parsed = timerSchemas[key].safeParse(value.ok ? value.value : NaN);
    if (parsed.success) return ok(parsed.data);
    const message = parsed.error.issues[0]?.message ?? 'a whole number';
    return fail({ message: `${message[0]!.toUpperCase()}${message.slice(1)}.` });
  };

export const portNumber = (text: string): Reading<number> => {
  const value = readWhole(text);
  return value.ok && value.value >= 1 && value.value <= 4095 ? value : fail({ message: 'A port number is 1 to 4095.' });
};

/** A whole number in a range. */
const within =
  (min: number, max: number, what: string) =>
  (text: string): Reading<number> => {
    const value = readWhole(text);
    return value.ok && value.value >= min && value.value <= max
      ? value
      : fail({ message: `${what} is ${min} to ${max}.` });
  };
export const lacpPriority = within(0, 65_535, 'An LACP priority');
/** Empty: the bundle's own. */
export const lacpKey = optional(within(0, 65_535, 'A key'));
export const memberCount = within(1, 64, 'A number of members');
export const bundleNumber = within(1, 2047, "A bundle's number");
export const pairDomain = within(1, 4095, 'A domain');
export const pairPriority = within(PAIR_PRIORITY.min, PAIR_PRIORITY.max, 'A priority in a pair');
/** Seconds. */
export const pairDelay = within(PAIR_DELAY.min, PAIR_DELAY.max, 'A delay in seconds');
/** Empty: not of the pair. */
export const pairNumber = optional(within(1, 2047, 'A number in the pair'));

export const vlan = (text: string): Reading<number> => {
  const value = readWhole(text);
  return value.ok && value.value >= 1 && value.value <= MAX_VLAN
    ? value
    : fail({ message: `A VLAN ID is 1 to ${MAX_VLAN}.` });
};

/** The other mode with the VLANs that come nearest to the present ones. */
export const carriageAs = (mode: Carriage['mode'], now: Carriage): Carriage =>
  mode === now.mode
    ? now
    : now.mode === 'access'
      ? { mode: 'trunk', native: now.vlan, allowed: '1-4094' }
      : { mode: 'access', vlan: now.native };

/** Empty: never by itself. */
export const recovery = optional((text): Reading<number> => {
  const value = readWhole(text);
  if (value.ok && value.value >= RECOVERY.min && value.value <= RECOVERY.max) return ok(value.value);
  return fail({
    message: `Seconds from ${RECOVERY.min} to ${RECOVERY.max}; empty: only somebody opens it.`,
    suggestions: [String(RECOVERY.default)],
  });
});

export const probeInterval = (text: string): Reading<number> => {
  const value = readWhole(text);
  if (value.ok && value.value >= PROBE_INTERVAL.min && value.value <= PROBE_INTERVAL.max) return ok(value.value);
  return fail({ message: `Seconds from ${PROBE_INTERVAL.min} to ${PROBE_INTERVAL.max}.` });
};

/** `1 %`, `500 frames/s`, `500/s`; empty: none. */
export const stormLimit = optional((text): Reading<{ most: number; of: 'percent' | 'frames' }> => {
  const parsed = limitSchema.safeParse(readStormLimit(text));
  if (parsed.success) return ok(parsed.data);
  return fail({ message: 'Up to 100 %, or frames a second.', suggestions: ['1 %', '500 frames/s'] });
});
