/** The formats in which neighbours are read: one line each, the likeliest to be mistaken last. */
import type { Result } from '../../base/result';
import type { NeighbourFormat, ObservedImport } from './format';
import { lldp } from './lldp';
import { table } from './table';

export const FORMATS: readonly NeighbourFormat[] = [lldp, table];

/** The format that a text is in. */
export const formatOf = (text: string): NeighbourFormat => FORMATS.find((format) => format.detects(text)) ?? table;

/** Reads neighbours in whatever format they are; `seenOn` is the switch, where the format does not name it. */
export const readNeighbours = (text: string, seenOn: string | null): Result<ObservedImport, string> =>
  formatOf(text).read(text, seenOn ?? '');
