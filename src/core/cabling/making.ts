/** Lines that make one of several switches, a pair or a stack: cables, ports and bundles go along, so each is planned on the whole design. */
import type { Command } from '../edit/commands';
import { pairThese } from '../edit/pairing';
import { stackTogether } from '../edit/stacking';
import type { Design } from '../model/document';
import type { Statement } from './statement';
import type { LineFault } from './tokens';

export type Making = Extract<Statement, { kind: 'pair' | 'stack' }>;

export const isMaking = (statement: Statement): statement is Making => statement.kind in MAKES;

const MAKES = { pair: pairThese, stack: stackTogether } as const;

/** What such a line does to a design; a pair that is there is left alone. */
export function planMaking(
  design: Design,
  { kind, names }: Making,
): { readonly commands: readonly Command[]; readonly fault: LineFault | null } {
  const fail = ({ at, length }: Making['names'][number], message: string) => ({
    commands: [],
    fault: { at, length, message },
  });
  const switches = names.map(({ value }) => named(design, value));
  const unknown = switches.indexOf(undefined);
  if (unknown >= 0) return fail(names[unknown]!, `there is no switch ${names[unknown]!.value}`);
  const domains = new Set(switches.map((sw) => sw!.pair?.domain));
  if (kind === 'pair' && switches.length === 2 && domains.size === 1 && !domains.has(undefined))
    return { commands: [], fault: null };
  const made = MAKES[kind](
    design,
    switches.map((sw) => sw!.id),
  );
  return made.ok ? { commands: made.value, fault: null } : fail(names[0]!, made.error);
}

/** A name goes before an identifier. */
const named = ({ switches }: Design, name: string): Design['switches'][number] | undefined =>
  switches.find((sw) => sw.name === name) ?? switches.find((sw) => sw.id === name);
