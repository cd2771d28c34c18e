/** Words of bundles as people read them. */
import type { StateBit } from '../../../core/modes/lacp/state';
import type { EndMode, ModeOutcome } from '../../../core/topology/lag/modes';
import type { BundleMode, HashPolicy } from '../../../core/model/document';

export const MODE_CHOICES: readonly (readonly [BundleMode, string])[] = [
  ['active', 'Active (LACP)'],
  ['passive', 'Passive (LACP)'],
  ['static', 'Static'],
  ['initiate', 'Initiate (legacy negotiation)'],
  ['answer', 'Answer (legacy negotiation)'],
];
/** Short enough for a matrix. */
export const MODE_NAMES: Readonly<Record<EndMode, string>> = {
  active: 'Active',
  passive: 'Passive',
  static: 'Static',
  initiate: 'Initiate',
  answer: 'Answer',
  none: 'No bundle',
};
export const OUTCOMES: Readonly<Record<ModeOutcome, string>> = {
  up: 'comes up',
  down: 'single ports',
  'one-sided': 'one-sided',
};
export const BIT_WORDS: Readonly<Record<StateBit, readonly [on: string, off: string]>> = {
  activity: ['speaks first', 'answers only'],
  timeout: ['short timeout', 'long timeout'],
  aggregation: ['can aggregate', 'individual link'],
  synchronization: ['in step', 'not in step'],
  collecting: ['collecting', 'not collecting'],
  distributing: ['distributing', 'not distributing'],
  defaulted: ['defaulted', 'partner heard'],
  expired: ['expired', 'not expired'],
};
export const TIMEOUT_CHOICES = [
  ['slow', 'Slow: every 30 s'],
  ['fast', 'Fast: every second'],
] as const;
/** What a timeout means for those who wait. */
export const TIMEOUT_NOTES = {
  slow: 'A partner that falls silent is taken out after 90 s; beside a passive end it may come up half a minute late.',
  fast: 'A partner that falls silent is taken out after 3 s.',
} as const;
export const HASH_CHOICES: readonly (readonly [HashPolicy, string])[] = [
  ['2', 'Layer 2: MAC'],
  ['2+3', 'Layer 2+3: MAC, IP'],
  ['3+4', 'Layer 3+4: IP, ports'],
];
