/** What a report of the design has, in which order, and what is to be said to its chapters. */
import { z } from '../base/zod';
import { id, text } from './common';

export const reportSchema = z.array(z.strictObject({ chapter: id, note: text(20_000).default('') })).max(60);
