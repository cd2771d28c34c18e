/** Choices as people read them. */
import type { DealRule } from '../../../core/analysis/regions/grouping';
import {
  DIALECTS,
  SPOKEN,
  runsTrees,
  traitsOf,
  type Design,
  type Dialect,
  type Tier,
} from '../../../core/model/document';

export const dialectText = (dialect: Dialect): string =>
  runsTrees({ dialect }) ? traitsOf(dialect).name : 'Off (floods)';
export const DIALECT_CHOICES: readonly (readonly [Dialect, string])[] = DIALECTS.map(
  (dialect) => [dialect, dialectText(dialect)] as const,
);

/** Those that run spanning tree. */
export const MODE_CHOICES: readonly (readonly [Dialect, string])[] = SPOKEN.map(
  (dialect) => [dialect, dialectText(dialect)] as const,
);

export const TIER_CHOICES: readonly (readonly [Tier, string])[] = [
  ['core', 'Core'],
  ['distribution', 'Distribution'],
  ['access', 'Access'],
];

export const POWER_CHOICES = [
  ['on', 'On'],
  ['off', 'Off: without power'],
] as const;

export const METHOD_CHOICES: readonly (readonly [Design['pathCost'], string])[] = [
  ['long', 'Long'],
  ['short', 'Short'],
];

/** Rules by which VLANs go to instances or to roots. */
export const RULE_CHOICES: readonly (readonly [DealRule, string])[] = [
  ['parity', 'odd and even'],
  ['ranges', 'lower and upper'],
  ['turn', 'every other one'],
  ['load', 'load'],
];

export const CARRIAGE_CHOICES = [
  ['trunk', 'Trunk'],
  ['access', 'Access'],
] as const;
export const UP_CHOICES = [
  ['up', 'Up'],
  ['down', 'Down'],
] as const;
export const EDGE_CHOICES = [
  ['no', 'No'],
  ['yes', 'Yes: only hosts here'],
] as const;
