/** The lenses that are built so far, in the order of the work. */
export const LENSES = ['Cable', 'Root', 'Steer', 'Group', 'Bundle', 'Guard', 'Break', 'Prove', 'Hand over'] as const;
export type Lens = (typeof LENSES)[number];
