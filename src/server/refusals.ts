/** What the server says where a design or a revision is not there, or cannot be read. */
import type { Damage } from '../contract/api';
import type { Refused } from './heavy/task';

export const unknownDesign = (id: string): Refused => ({
  status: 404,
  message: `There is no design "${id.slice(0, 40)}". It may have been deleted.`,
});

export const unknownRevision = (revision: number, head: number): Refused => ({
  status: 404,
  message: `There is no revision ${revision}; the newest is ${head}.`,
});

export const unreadable = ({ good, head, why }: Damage, revision: number): Refused => ({
  status: 422,
  message: `Revision ${revision} cannot be read: what is stored from revision ${good + 1} to ${head} is not a design. Revision ${good} is the last good one: go on from there.`,
  details: [why],
});
