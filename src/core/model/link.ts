import { z } from '../base/zod';
import { branded, endSchema } from './common';
import { field } from './field';
import type { LinkId } from './ids';

/** Microseconds that a frame takes over a cable; absent: a few hundred metres. */
export const linkDelay = z.number().int().min(1).max(1_000_000);

export const linkSchema = z.strictObject({
  id: branded<LinkId>(),
  a: field(endSchema, { label: 'one end', reads: 'trees', text: (end, names) => names.end(end) }),
  b: field(endSchema, { label: 'other end', reads: 'trees', text: (end, names) => names.end(end) }),
  up: field(z.boolean().default(true), {
    label: 'cable',
    reads: 'trees',
    text: (up) => (up ? 'up' : 'cut'),
    done: (up) => (up ? 'restored' : 'cut'),
    line: {
      kind: 'words',
      words: [
        ['cut', false, 'the cable is cut'],
        ['uncut', true, 'the cable is whole'],
      ],
    },
  }),
  /** Something on the way keeps the signal up at one end when it is gone at the other: only missing BPDUs tell. */
  converter: field(z.boolean().optional(), {
    label: 'media converter',
    reads: 'nothing',
    absent: 'none',
    text: (there) => (there ? 'there' : 'none'),
  }),
  delay: field(linkDelay.optional(), { label: 'delay', unit: 'µs', reads: 'run', absent: 'as usual' }),
});
export type Link = z.output<typeof linkSchema>;
