/** What was decided about a finding: kept with the design, so that colleagues and reports know. */
import { z } from '../base/zod';
import { id, text, treeId } from './common';
import { field } from './field';

/** It is to be mended, or stays as it is on purpose. */
export const DECIDED = ['mend', 'stays'] as const;

export const decisionSchema = z.strictObject({
  id,
  /** The rule that found it, and where: what the finding says that it is at. They need not be there any more. */
  rule: field(id, { label: 'rule', reads: 'nothing' }),
  at: field(
    z.strictObject({
      switch: id.optional(),
      port: id.optional(),
      link: id.optional(),
      trees: z.array(treeId).max(5000).optional(),
    }),
    { label: 'place', reads: 'nothing', whole: true, text: (at) => Object.values(at).flat().join(' ') || 'the design' },
  ),
  decided: field(z.enum(DECIDED), { label: 'decision', reads: 'nothing' }),
  why: field(text(2000), { label: 'reason', reads: 'nothing', text: (value) => (value === '' ? 'none' : value) }),
});
export type Decision = z.output<typeof decisionSchema>;

/** How a decision is told. */
export const decidedText = ({ decided, why }: Pick<Decision, 'decided' | 'why'>): string =>
  `${decided === 'mend' ? 'To be mended' : 'Stays as it is'}${why === '' ? '' : `: ${why}`}`;
