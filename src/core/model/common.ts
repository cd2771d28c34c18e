/** Schemas that several things of a design share: names, identifiers, trees, ends of cables. */
import { z } from '../base/zod';
import { field } from './field';
import type { PortId, SwitchId, TreeId } from './ids';

// Control characters are what a name must not hold: they would hide in tables and break the command line's output.
const CONTROL = /[\u0000-\u001f\u007f]/;
export const hasControl = (value: string): boolean => CONTROL.test(value);

export const text = (max: number) =>
  z.string().superRefine((value, ctx) => {
    if (value.length > max) ctx.addIssue({ code: 'custom', message: `at most ${max} characters` });
  });

/** The longest name, in characters. */
export const MAX_NAME = 20_000;
const isLine = (value: string): boolean => value.trim() !== '' && !hasControl(value);
/** Whether a text may be a name, where nobody asks why not. */
export const isTitle = (value: string): boolean => value.length <= MAX_NAME && isLine(value);
/** A name: one line, not empty. */
export const titleSchema = text(MAX_NAME).superRefine((value, ctx) => {
  if (!isLine(value)) {
    ctx.addIssue({ code: 'custom', message: 'a name of one line, not empty' });
  }
});
/** The name of a thing that goes by its id where it has none. */
export const nameField = field(titleSchema.optional(), { label: 'name', reads: 'nothing' });

/** The longest identifier. */
export const MAX_ID = 200;
// Results are keyed by identifiers; the words that every object has would be lost there, or stand for something else.
const isTaken = (value: string): boolean => value in Object.prototype;
/** Whether a text may be an identifier, where nobody asks why not. */
export const isIdentifier = (value: string): boolean => isLine(value) && value.length <= MAX_ID && !isTaken(value);
export const id = z.string().superRefine((value, ctx) => {
  if (!isLine(value) || value.length > MAX_ID) {
    ctx.addIssue({ code: 'custom', message: 'an identifier of 1 to 200 characters on one line' });
  } else if (isTaken(value)) {
    ctx.addIssue({
      code: 'custom',
      message: 'another identifier: programs that read the results take this one for something else',
    });
  }
});
export const branded = <T extends string>() => id.transform((value) => value as T);

const TREE_ID = /^(cst|vlan:([1-9]\d{0,3})|mst:(0|[1-9]\d{0,3}))$/;
export const treeId = z.string().superRefine((value, ctx) => {
  const match = TREE_ID.exec(value);
  if (!match || Number(match[2] ?? match[3] ?? 0) > 4094) {
    ctx.addIssue({ code: 'custom', message: 'a tree: cst, vlan:1 to vlan:4094, or mst:0 to mst:4094' });
  }
});
/** How a cabling line says a MAC address. */
export const macWord = {
  kind: 'value',
  word: 'mac',
  detail: 'MAC address',
  what: 'an individual MAC address such as 02:4b:00:00:00:0a',
} as const;

/** Settings by tree. */
export const perTree = <T extends z.ZodType>(value: T) =>
  z.record(treeId, value).transform((trees) => trees as Partial<Record<TreeId, z.output<T>>>);

/** What holds where a tree has no setting of its own. */
export const AS_FOR_ALL = 'as for all trees';

/** Where a cable or a host is plugged in. */
export const endSchema = z.strictObject({ switch: branded<SwitchId>(), port: branded<PortId>() });
export type LinkEnd = z.output<typeof endSchema>;

/** Where something stands that is plugged into a switch and has no place of its own: below it, a little to the side. */
export const placedBeside = ({
  position,
}: {
  readonly position?: { readonly x: number; readonly y: number } | undefined;
}) => position && { position: { x: position.x + 60, y: position.y + 170 } };

/** Where a switch stands on the map; arithmetic on places far beyond would not come out. */
const coordinate = z.number().min(-1_000_000).max(1_000_000);
export const positionSchema = z.strictObject({ x: coordinate, y: coordinate });

/** 802.1D-1998 table (`short`) or the 802.1Q formula (`long`). */
export const COST_METHODS = ['short', 'long'] as const;
export type CostMethod = (typeof COST_METHODS)[number];
