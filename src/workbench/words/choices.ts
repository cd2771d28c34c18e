/** Choices as people read them. */
import type { Design, Dialect, Tier } from '../../core/design/schema';

export const DIALECT_CHOICES: readonly (readonly [Dialect, string])[] = [
  ['stp', 'Classic STP'],
  ['rstp', 'RSTP'],
  ['mstp', 'MSTP'],
  ['per-vlan-stp', 'Per-VLAN classic'],
  ['per-vlan-rstp', 'Per-VLAN rapid'],
  ['off', 'Off (floods)'],
];

const NAMES = new Map(DIALECT_CHOICES);
export const dialectText = (dialect: Dialect): string => NAMES.get(dialect) ?? dialect;

export const TIER_CHOICES: readonly (readonly [Tier, string])[] = [
  ['core', 'Core'],
  ['distribution', 'Distribution'],
  ['access', 'Access'],
];

export const POWER_CHOICES = [['on', 'On'], ['off', 'Off: without power']] as const;

export const METHOD_CHOICES: readonly (readonly [Design['pathCost'], string])[] = [
  ['long', 'Long'],
  ['short', 'Short'],
];

export const CARRIAGE_CHOICES = [['trunk', 'Trunk'], ['access', 'Access']] as const;
export const UP_CHOICES = [['up', 'Up'], ['down', 'Down']] as const;
