/** Templates of people's own, by which the settings of a switch are written. */
import { z } from '../base/zod';
import { field } from './field';
import { id, text, titleSchema } from './common';

/** Longest text of a template. */
const MAX_TEXT = 100_000;

export const templateSchema = z.strictObject({
  id,
  name: field(titleSchema, { label: 'name', reads: 'nothing' }),
  /** What the names of its files end with: `.txt`. */
  end: field(z.string().regex(/^\.[A-Za-z0-9][A-Za-z0-9.]{0,19}$/, 'an end of a file name, such as .txt'), {
    label: 'end of file names',
    reads: 'nothing',
  }),
  text: field(text(MAX_TEXT), {
    label: 'text',
    reads: 'nothing',
    text: (value) => (value === '' ? 'none' : `${value.split('\n').length} lines`),
  }),
});
export type Template = z.output<typeof templateSchema>;
