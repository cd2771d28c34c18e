import { HAS_SERVER } from './reach';

/** The lenses that are built so far, in the order of the work. */
const ALL = ['Cable', 'Root', 'Steer', 'Group', 'Bundle', 'Guard', 'Break', 'Prove', 'Hand over', 'Observe'] as const;
export type Lens = (typeof ALL)[number];

/** Those of this page: what is handed over comes from a server. */
export const LENSES: readonly Lens[] = HAS_SERVER ? ALL : ALL.filter((lens) => lens !== 'Hand over');
