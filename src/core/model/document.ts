/** A whole design document, version 1: what a design is made of, each thing with a table of its fields in a file of its own. */
import { z } from '../base/zod';
import { bundleSchema } from './bundle';
import { COST_METHODS, text, titleSchema } from './common';
import { SPOKEN, traitsOf } from './dialect';
import { exerciseSchema } from './exercise';
import { field, listField, nodeOf, type GroupNode } from './field';
import { decisionSchema } from './decision';
import { groupSchema } from './group';
import { hostSchema } from './host';
import { intentSchema } from './intent';
import { linkSchema } from './link';
import { nameOf } from './names';
import { observedSchema } from './observed';
import { regionSchema } from './region';
import { reportSchema } from './report';
import { scenarioSchema } from './scenario';
import { switchSchema } from './switch';
import { templateSchema } from './template';
import { vlanSchema } from './vlan';
import { worksheetSchema } from './worksheet';

export * from './bundle';
export * from './common';
export * from './decision';
export * from './dialect';
export * from './exercise';
export * from './group';
export * from './host';
export * from './intent';
export * from './link';
export * from './observed';
export * from './port';
export * from './region';
export * from './stack';
export * from './pair';
export * from './switch';
export * from './template';
export * from './vlan';
export * from './worksheet';

/** The name of the format and its present version. */
export const FORMAT = { name: 'knot-path-design', version: 1 } as const;

export const designSchema = z.strictObject({
  format: z.literal(FORMAT.name),
  version: z.literal(FORMAT.version),
  name: field(titleSchema, { label: 'name', reads: 'nothing' }),
  notes: field(text(1_000_000).default(''), { label: 'notes', reads: 'nothing' }),
  pathCost: field(z.enum(COST_METHODS).default('long'), { label: 'path cost method', reads: 'trees', always: true }),
  /** What new switches run; left out, what most switches run. */
  mode: field(z.enum(SPOKEN).optional(), {
    label: 'spanning tree mode of new switches',
    reads: 'nothing',
    text: (mode) => (mode ? traitsOf(mode).name : 'as most switches'),
  }),
  vlans: listField(z.array(vlanSchema).default([]), {
    label: 'VLANs',
    one: 'VLAN',
    most: 4094,
    reads: 'trees',
    nameOf: (vlan) => `VLAN ${vlan.id}`,
  }),
  regions: listField(z.array(regionSchema).default([]), {
    label: 'regions',
    one: 'region',
    most: 200,
    reads: 'trees',
    nameOf: (region) => `region ${region.id}`,
  }),
  groups: listField(z.array(groupSchema).default([]), {
    label: 'groups',
    one: 'group',
    most: 1000,
    reads: 'nothing',
    nameOf: (group) => `group ${nameOf(group)}`,
  }),
  switches: listField(z.array(switchSchema), {
    label: 'switches',
    one: 'switch',
    most: 2000,
    reads: 'trees',
    nameOf: (sw) => nameOf(sw),
    at: (sw) => ({ switch: sw.id }),
  }),
  links: listField(z.array(linkSchema), {
    label: 'links',
    one: 'link',
    most: 20_000,
    reads: 'trees',
    nameOf: ({ a, b }, names) => `${names.end(a)} to ${names.end(b)}`,
    at: (link) => ({ link: link.id }),
  }),
  bundles: listField(z.array(bundleSchema).default([]), {
    label: 'bundles',
    one: 'bundle',
    most: 10_000,
    reads: 'trees',
    nameOf: (bundle) => `bundle ${bundle.id}`,
  }),
  hosts: listField(z.array(hostSchema).default([]), {
    label: 'hosts',
    one: 'host',
    most: 20_000,
    reads: 'trees',
    nameOf: (host) => `host ${nameOf(host)}`,
    at: (host) => ({ host: host.id }),
  }),
  /** What the switches say is plugged into them, to be held against the cables drawn. */
  observed: field(z.array(observedSchema).default([]), {
    label: 'observed neighbours',
    most: 50_000,
    reads: 'nothing',
    text: (rows) => (rows.length === 0 ? 'none' : rows.length === 1 ? '1 row' : `${rows.length} rows`),
  }),
  /** What must hold of the network. What they name need not be there any more. */
  intents: listField(z.array(intentSchema).default([]), {
    label: 'intents',
    one: 'intent',
    most: 1000,
    reads: 'nothing',
    nameOf: (intent) => `intent ${intent.line}`,
  }),
  /** Absent: no exercise. */
  exercise: field(exerciseSchema.optional(), {
    label: 'exercise',
    reads: 'nothing',
    absent: 'none',
    present: 'an exercise',
  }),
  /** What happens to the network while the clock runs. What they name need not be there any more. */
  scenarios: listField(z.array(scenarioSchema).default([]), {
    label: 'scenarios',
    one: 'scenario',
    most: 100,
    reads: 'nothing',
    nameOf: (scenario) => `scenario ${scenario.name}`,
  }),
  /** The chapters of its report; absent: all of them. */
  report: field(reportSchema.optional(), {
    label: 'chapters of the report',
    reads: 'nothing',
    absent: 'all',
    whole: true,
    text: (chapters) => (chapters ? `${chapters.length} chosen` : 'all'),
  }),
  /** What was decided about findings. */
  decisions: listField(z.array(decisionSchema).default([]), {
    label: 'decisions',
    one: 'decision',
    most: 2000,
    reads: 'nothing',
    nameOf: ({ rule }) => `decision on ${rule}`,
  }),
  /** Templates by which settings are written. */
  templates: listField(z.array(templateSchema).default([]), {
    label: 'templates',
    one: 'template',
    most: 50,
    reads: 'nothing',
    nameOf: (template) => `template ${template.name}`,
  }),
  /** Worksheets that were filled in by hand, the oldest first. */
  worksheets: field(z.array(worksheetSchema).default([]), {
    label: 'worksheets',
    most: 100,
    reads: 'nothing',
    text: (kept) => (kept.length === 0 ? 'none' : `${kept.length} kept`),
  }),
});

/** A whole design: a plain, immutable value; everything the product says is a function of it. */
export type Design = z.output<typeof designSchema>;

/** The document as derivations walk it. */
export const designNode = nodeOf(designSchema) as GroupNode;

/** The most items of one of the document's lists. */
export const mostOf = (key: keyof Design): number => designNode.fields.get(key)!.facts!.most!;
