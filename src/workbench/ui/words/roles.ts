/** Roles and states in letters and words. */
import type { Role } from '../../../core/tree/settled';

/** The standard's letters. */
export const ROLE_LETTERS: Readonly<Record<Role, string>> = {
  root: 'R',
  designated: 'D',
  alternate: 'A',
  backup: 'B',
  master: 'M',
  disabled: '–',
};

/** `alternate in 15`, for titles; `not in 15` where the end is outside the tree. */
export const roleSentence = (role: Role | null, label: string): string =>
  `${role ?? 'not'}${label ? ` in ${label}` : ''}`;
