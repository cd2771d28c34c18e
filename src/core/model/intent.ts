/** Intents: what must hold of the network, a line each; kept with the design. */
import { z } from '../base/zod';
import { text } from './common';
import { field } from './field';

export const SEVERITIES = ['must', 'should'] as const;
export type Severity = (typeof SEVERITIES)[number];

/** How long a line may be. */
export const MAX_LINE = 1000;

export const intentSchema = z.strictObject({
  id: text(64),
  /** With ids for names (docs/intents.md). What it names need not be there any more. */
  line: field(text(MAX_LINE), { label: 'what holds', reads: 'nothing' }),
  severity: field(z.enum(SEVERITIES).default('must'), { label: 'severity', reads: 'nothing' }),
  note: field(text(2000).default(''), { label: 'note', reads: 'nothing' }),
});
export type Intent = z.output<typeof intentSchema>;
