/** Values put in their places in a document, whatever they are. */
import { z } from '../base/zod';
import { MAX_COMMANDS } from './limits';

/** The place of a value: the keys that lead to it, items of lists by their id; without a value what is there goes. */
export const putSchema = z.strictObject({ place: z.array(z.string()).min(1).max(12), value: z.unknown().optional() });
export type Put = z.output<typeof putSchema>;

export const putsSchema = z.array(putSchema).max(MAX_COMMANDS);
