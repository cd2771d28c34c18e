/** How each cause of an outage is filled in charts: told apart without colour. */
import type { OutageCause } from '../../../core/sim/traffic/reach';

export const CAUSE_FILLS: Readonly<Record<OutageCause, string>> = {
  'no path': 'var(--ink)',
  'outdated address': 'var(--ink-soft)',
  storm: 'var(--accent)',
};
