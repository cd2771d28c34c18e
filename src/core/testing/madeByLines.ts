/** Designs that cabling lines make. */
import { planLines } from '../cabling/plan';
import { editAll } from '../edit/edit';
import type { Design } from '../model/document';
import { designOf } from './networks';

/** The design that lines make, or the first fault. */
export function made(text: string, from: Design = designOf({})): Design {
  const plan = planLines(from, text);
  const fault = plan.lines.find((line) => line.fault)?.fault;
  if (fault) throw new Error(`${fault.at}: ${fault.message}`);
  const edited = editAll(from, plan.commands);
  if (!edited.ok) throw new Error(`${edited.error.path}: ${edited.error.found}`);
  return edited.value.design;
}
export const cablesOf = (design: Design) =>
  design.links.map(({ a, b }) => `${a.switch} ${a.port} = ${b.switch} ${b.port}`);
export const faultOf = (text: string, from: Design = designOf({})) =>
  planLines(from, text).lines.find((line) => line.fault)?.fault;
export const portOf = (design: Design, sw: string, port: string) =>
  design.switches.find((s) => s.id === sw)?.ports.find((p) => p.id === port);
