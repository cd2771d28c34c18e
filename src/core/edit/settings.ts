/** Commands that set plain fields, derived from the tables: what may be set, setting it, and telling it. */
import equal from 'fast-deep-equal';
import { z } from '../base/zod';
import { nodeOf, valueText, type GroupNode, type Node } from '../model/field';
import type { Names } from '../model/names';
import { copyOf } from './draft';

type SettingOf<S> =
  S extends z.ZodOptional<infer I>
    ? (I extends z.ZodObject<infer G> ? Settings<G> : z.output<I>) | null
    : S extends z.ZodDefault<infer I>
      ? I extends z.ZodObject<infer G>
        ? Settings<G>
        : z.output<I>
      : z.output<S>;

/** Some fields of a group, each as it is to be; null takes one away that may be absent. */
export type Settings<G> = { [K in keyof G]?: SettingOf<G[K]> | undefined };
type SettingShape<G> = { [K in keyof G]: z.ZodOptional<z.ZodType<SettingOf<G[K]>>> };

/** The shape of a command that sets any of these fields. */
export function settingsOf<G extends z.core.$ZodLooseShape>(fields: G): SettingShape<G>;
export function settingsOf(fields: Readonly<Record<string, z.ZodType>>): object {
  return Object.fromEntries(Object.entries(fields).map(([key, schema]) => [key, settingOf(schema)]));
}

function settingOf(schema: z.ZodType): z.ZodType {
  const { optional } = nodeOf(schema);
  const inner = bare(schema);
  const value =
    inner instanceof z.ZodObject && !nodeOf(schema).facts?.text ? z.strictObject(settingsOf(inner.shape)) : inner;
  return (optional ? value.nullable() : value).optional();
}

/** Without what fills it in, or lets it be absent. */
function bare(schema: z.ZodType): z.ZodType {
  const { type, innerType } = schema.def as { type: string; innerType?: z.ZodType };
  return innerType && (type === 'default' || type === 'optional') ? bare(innerType) : schema;
}

/** Fields of a group as they are to be; keys that are none of its fields tell which thing is meant. */
type Given = Readonly<Record<string, unknown>>;

/** The given fields with what each is to be. */
const givenIn = (group: GroupNode, given: Given): (readonly [string, Node, unknown])[] =>
  Object.entries(given).flatMap(([key, value]) => {
    const field = group.fields.get(key);
    return field && value !== undefined ? [[key, field, value] as const] : [];
  });

/** Sets what is given and leaves the rest. */
export function applySettings(group: GroupNode, target: object, given: Given): void {
  const draft = target as Record<string, unknown>;
  for (const [key, field, value] of givenIn(group, given)) {
    if (value === null) delete draft[key];
    else {
      const next =
        field.kind === 'group' && !field.facts?.text ? mergedGroup(field, draft[key], value as Given) : value;
      if (!equal(draft[key], next)) draft[key] = copyOf(next);
    }
  }
}

function mergedGroup(group: GroupNode, before: unknown, given: Given): object {
  const merged = copyOf(before ?? group.schema.parse({})) as object;
  applySettings(group, merged, given);
  return merged;
}

/** What is set, in words: `speed 1000 to 100 Mb/s, set down`. */
export const settingsText = (group: GroupNode, before: object | undefined, given: Given, names: Names): string => {
  const all = saidOf(group, before as Given | undefined, given, names);
  const changed = all.filter((each) => each.changed);
  return (changed.length > 0 ? changed : all).map((each) => each.text).join(', ');
};

interface Said {
  readonly text: string;
  readonly changed: boolean;
}

function saidOf(group: GroupNode, before: Given | undefined, given: Given, names: Names): Said[] {
  return givenIn(group, given).flatMap(([key, field, value]): Said[] => {
    const was = before?.[key];
    const { facts } = field;
    if (field.kind === 'group' && !facts?.text) {
      if (value === null) return [{ text: `${facts?.label} ${facts?.absent}`, changed: was !== undefined }];
      const inside = saidOf(field, (was ?? group.fields.get(key)!.schema.parse({})) as Given, value as Given, names);
      return was === undefined && facts?.present
        ? [{ text: `${facts.label} ${facts.present}`, changed: true }, ...inside]
        : inside;
    }
    const changed = !equal(was, value === null ? undefined : value);
    if (facts?.done && value !== null) return [{ text: facts.done(value as never, names), changed }];
    const told = (side: unknown): string => valueText(field, side, names) ?? 'none';
    const from = before === undefined ? '' : ` ${told(was)}`;
    const unit = facts?.unit === undefined || value === null ? '' : ` ${facts.unit}`;
    return [{ text: `${facts?.label}${from} to ${told(value === null ? undefined : value)}${unit}`, changed }];
  });
}
