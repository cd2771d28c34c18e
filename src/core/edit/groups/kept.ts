/** What is kept with a design and no part of the network: reported neighbours, worksheets, scenarios, decisions, templates. */
import equal from 'fast-deep-equal';
import { z } from '../../base/zod';
import { decidedText, decisionSchema } from '../../model/decision';
import { mostOf, observedSchema, templateSchema, worksheetSchema } from '../../model/document';
import { treesName } from '../../model/ids';
import { reportSchema } from '../../model/report';
import { scenarioSchema } from '../../model/scenario';
import { command } from '../command';
import { Missing, copyOf } from '../draft';
import { say } from '../phrase';

export const keptCommands = [
  command(
    'set-observed',
    { observed: z.array(observedSchema) },
    {
      apply(draft, { observed }) {
        if (!equal(draft.observed, observed)) draft.observed = copyOf(observed);
      },
      say: (_, { observed }) =>
        say('observed neighbours: ', observed.length === 1 ? '1 row' : `${observed.length} rows`),
    },
  ),
  command(
    'keep-worksheet',
    { worksheet: worksheetSchema },
    {
      apply(draft, { worksheet }) {
        draft.worksheets.push(copyOf(worksheet));
        if (draft.worksheets.length > mostOf('worksheets')) draft.worksheets.shift();
      },
      say: (_, { worksheet: { tree, right, of } }) =>
        say('worksheet for ', `${treesName([tree])}: ${right} of ${of} right`),
    },
  ),
  command(
    'forget-worksheets',
    {},
    {
      apply(draft) {
        if (draft.worksheets.length > 0) draft.worksheets = [];
      },
      say: () => say('worksheets ', 'forgotten'),
    },
  ),
  /** Adds a scenario, or replaces the one of that id. */
  command(
    'keep-scenario',
    { scenario: scenarioSchema },
    {
      apply(draft, { scenario }) {
        const place = draft.scenarios.findIndex((each) => each.id === scenario.id);
        draft.scenarios.splice(place < 0 ? draft.scenarios.length : place, place < 0 ? 0 : 1, copyOf(scenario));
      },
      say({ design }, { scenario }) {
        const there = design.scenarios.some((each) => each.id === scenario.id);
        return say('scenario ', `${scenario.name}: ${there ? 'changed' : 'kept'}`);
      },
    },
  ),
  command(
    'forget-scenario',
    { scenario: z.string() },
    {
      apply(draft, { scenario }) {
        const place = draft.scenarios.findIndex((each) => each.id === scenario);
        if (place < 0) throw new Missing(`scenario ${scenario}`);
        draft.scenarios.splice(place, 1);
      },
      say({ design }, { scenario }) {
        const name = design.scenarios.find((each) => each.id === scenario)?.name;
        return say('scenario ', `${name ?? scenario}: forgotten`);
      },
    },
  ),
  command(
    'set-report',
    { report: reportSchema.nullable() },
    {
      apply(draft, { report }) {
        if (report === null) delete draft.report;
        else if (!equal(draft.report, report)) draft.report = copyOf(report);
      },
      say: (_, { report }) => say('report: ', report === null ? 'all chapters' : `${report.length} chapters`),
    },
  ),
  /** Says what is to be done about a finding, or says it anew. */
  command(
    'decide',
    { decision: decisionSchema },
    {
      apply(draft, { decision }) {
        const place = draft.decisions.findIndex((each) => each.id === decision.id);
        draft.decisions.splice(place < 0 ? draft.decisions.length : place, place < 0 ? 0 : 1, copyOf(decision));
      },
      say: (_, { decision }) => say(`finding ${decision.rule}: `, decidedText(decision)),
    },
  ),
  command(
    'undecide',
    { decision: z.string() },
    {
      apply(draft, { decision }) {
        const place = draft.decisions.findIndex((each) => each.id === decision);
        if (place < 0) throw new Missing(`decision ${decision}`);
        draft.decisions.splice(place, 1);
      },
      say({ design }, { decision }) {
        const rule = design.decisions.find((each) => each.id === decision)?.rule;
        return say(`finding ${rule ?? decision}: `, 'open again');
      },
    },
  ),
  /** Adds a template, or replaces the one of that id. */
  command(
    'keep-template',
    { template: templateSchema },
    {
      apply(draft, { template }) {
        const place = draft.templates.findIndex((each) => each.id === template.id);
        draft.templates.splice(place < 0 ? draft.templates.length : place, place < 0 ? 0 : 1, copyOf(template));
      },
      say({ design }, { template }) {
        const there = design.templates.some((each) => each.id === template.id);
        return say('template ', `${template.name}: ${there ? 'changed' : 'kept'}`);
      },
    },
  ),
  command(
    'forget-template',
    { template: z.string() },
    {
      apply(draft, { template }) {
        const place = draft.templates.findIndex((each) => each.id === template);
        if (place < 0) throw new Missing(`template ${template}`);
        draft.templates.splice(place, 1);
      },
      say({ design }, { template }) {
        const name = design.templates.find((each) => each.id === template)?.name;
        return say('template ', `${name ?? template}: forgotten`);
      },
    },
  ),
] as const;
