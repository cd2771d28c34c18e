/** Scenarios: what happens to a network while the clock runs, as actions at chosen times. Kept with the design, or in a file of their own. */
import { z } from '../base/zod';
import { actionSchema } from './actions/actions';
import { MAX_UNTIL } from './actions/kind';
import { MAX_NAME, text, titleSchema } from './common';
import { field } from './field';

export type { Action, Undated } from './actions/actions';
export { MAX_UNTIL };

/** How long a run goes on where the scenario does not say. */
export const DEFAULT_UNTIL = 60;
/** How often hosts speak where the scenario does not say, seconds. */
export const DEFAULT_TALK = 0.01;
/** How many actions one scenario holds. */
export const MAX_ACTIONS = 10_000;

const run = {
  actions: field(z.array(actionSchema).max(MAX_ACTIONS), {
    label: 'what happens',
    reads: 'nothing',
    text: (actions) => actions.map((action) => `${action.do} at ${action.at} s`).join(', ') || 'nothing',
  }),
  until: field(z.number().positive().max(MAX_UNTIL).default(DEFAULT_UNTIL), {
    label: 'length',
    unit: 's',
    reads: 'nothing',
  }),
  /** What is learnt anew is learnt within this time. */
  talk: field(z.number().min(0.001).max(MAX_UNTIL).default(DEFAULT_TALK), {
    label: 'each host sends every',
    unit: 's',
    reads: 'nothing',
  }),
  fromBoot: field(z.boolean().default(false), { label: 'all powered on at 0', reads: 'nothing' }),
};

/** What a run needs: a scenario's file has these. */
export const runSchema = z.strictObject({ name: text(MAX_NAME).optional(), ...run });
export type Scenario = z.output<typeof runSchema>;

/** A scenario kept with a design: a name, and what to look for. */
export const scenarioSchema = z.strictObject({
  id: text(64),
  name: field(titleSchema, { label: 'name', reads: 'nothing' }),
  look: field(text(2000).default(''), { label: 'what to look for', reads: 'nothing' }),
  ...run,
});
export type KeptScenario = z.output<typeof scenarioSchema>;
