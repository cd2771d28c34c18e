import { z } from '../base/zod';
import { AS_FOR_ALL, COST_METHODS, branded, macWord, nameField, perTree, positionSchema, titleSchema } from './common';
import { DIALECTS, traitsOf } from './dialect';
import { field, listField } from './field';
import { inGroup } from './group';
import { switchGuardFields } from './guard';
import type { GroupId, RegionId, SwitchId } from './ids';
import { BRIDGE_PRIORITY, LACP_PRIORITY, bridgePriority, lacpPriority, macAddress, timerSchemas } from './legal';
import { MAX_PORTS } from './limits';
import { pairField } from './pair';
import { portSchema } from './port';
import { stackField } from './stack';

export const TIERS = ['core', 'distribution', 'access'] as const;
export type Tier = (typeof TIERS)[number];

export const DEFAULT_TIMERS = {
  hello: 2,
  maxAge: 20,
  forwardDelay: 15,
  maxHops: 20,
  txHold: 6,
  ageIncrement: 1,
} as const;

/** The timers of 802.1Q-2018 13.26 and 13.27, in the words of the standard; the settled trees know ages and hops alone. */
export const timersSchema = z.strictObject({
  hello: field(timerSchemas.hello.default(DEFAULT_TIMERS.hello), { label: 'hello time', reads: 'run' }),
  maxAge: field(timerSchemas.maxAge.default(DEFAULT_TIMERS.maxAge), { label: 'max age', reads: 'trees' }),
  forwardDelay: field(timerSchemas.forwardDelay.default(DEFAULT_TIMERS.forwardDelay), {
    label: 'forward delay',
    reads: 'run',
  }),
  maxHops: field(timerSchemas.maxHops.default(DEFAULT_TIMERS.maxHops), { label: 'max hops', reads: 'trees' }),
  txHold: field(timerSchemas.txHold.default(DEFAULT_TIMERS.txHold), { label: 'transmit hold count', reads: 'run' }),
  /** What a classic bridge adds to the age of a message, 256ths of a second: a second at the most (802.1D-1998 8.10.2). */
  ageIncrement: field(timerSchemas.ageIncrement.default(DEFAULT_TIMERS.ageIncrement), {
    label: 'message age increment',
    reads: 'trees',
  }),
});
export type Timers = z.output<typeof timersSchema>;

export const switchSchema = z.strictObject({
  id: branded<SwitchId>(),
  name: nameField,
  /** By what it goes in the network where that is another name or address: settled by hand. */
  knownAs: field(titleSchema.optional(), {
    label: 'known in the network as',
    reads: 'nothing',
    absent: 'its name or address',
  }),
  tier: field(z.enum(TIERS).default('access'), {
    label: 'tier',
    reads: 'layout',
    line: { kind: 'words', words: TIERS.map((tier) => [tier, tier] as const) },
  }),
  /** The group that it is in. */
  group: field(branded<GroupId>().optional(), {
    label: 'group',
    reads: 'nothing',
    absent: 'none',
    text: (group, names) => names.group(group),
    line: inGroup,
  }),
  mac: field(macAddress, { label: 'MAC address', reads: 'trees', line: macWord }),
  /** False: without power. */
  up: field(z.boolean().default(true), {
    label: 'power',
    reads: 'trees',
    text: (up) => (up ? 'on' : 'off'),
    done: (up) => (up ? 'switched on' : 'switched off'),
    line: {
      kind: 'words',
      words: [
        ['powered', true],
        ['unpowered', false],
      ],
    },
  }),
  /** Absent: a switch by itself. Else the members that it is made of; each of its ports is on one. */
  stack: stackField,
  /** Its half of a pair; absent: of none. */
  pair: pairField,
  /** Where this switch takes costs from speed by another method than the design's. */
  pathCost: field(z.enum(COST_METHODS).optional(), {
    label: 'path cost method',
    reads: 'trees',
    absent: 'that of the design',
    line: { kind: 'words', words: COST_METHODS.map((method) => [`${method}-cost`, method] as const) },
  }),
  dialect: field(z.enum(DIALECTS).default('rstp'), {
    label: 'spanning tree mode',
    reads: 'trees',
    text: (dialect) => traitsOf(dialect).name,
    line: { kind: 'words', words: DIALECTS.map((dialect) => [traitsOf(dialect).word, dialect] as const) },
  }),
  /** Whose MST configuration it has; without one it is a region of its own, with every VLAN in the IST. */
  region: field(branded<RegionId>().optional(), {
    label: 'region settings',
    reads: 'trees',
    absent: 'of its own',
    text: (region, names) => names.region(region),
  }),
  priority: field(bridgePriority.default(BRIDGE_PRIORITY.default), { label: 'priority', reads: 'settings' }),
  trees: perTree(
    z.strictObject({ priority: field(bridgePriority, { label: 'priority', reads: 'tree', absent: AS_FOR_ALL }) }),
  ).default({}),
  timers: timersSchema.default(DEFAULT_TIMERS),
  ...switchGuardFields,
  lacp: z
    .strictObject({
      systemPriority: field(lacpPriority.default(LACP_PRIORITY.default), {
        label: 'LACP system priority',
        reads: 'trees',
      }),
    })
    .optional(),
  position: field(positionSchema.optional(), {
    label: 'place',
    reads: 'layout',
    text: (position) => (position ? `${position.x}, ${position.y}` : 'none'),
    line: {
      kind: 'value',
      word: 'at',
      detail: 'place on the map: at 120,80',
      what: 'a place on the map such as 120,80',
    },
  }),
  /** Tidying leaves it where it is. */
  pinned: field(z.boolean().default(false), {
    label: 'pinned to its place',
    reads: 'nothing',
    done: (pinned) => (pinned ? 'pinned to its place' : 'no longer pinned to its place'),
    line: {
      kind: 'words',
      words: [
        ['pinned', true, 'tidying leaves it where it is'],
        ['unpinned', false],
      ],
    },
  }),
  ports: listField(z.array(portSchema), {
    label: 'ports',
    one: 'port',
    most: MAX_PORTS.switch,
    reads: 'trees',
    nameOf: (port) => `port ${port.id}`,
    at: (port) => ({ port: port.id }),
  }),
});
export type Switch = z.output<typeof switchSchema>;
