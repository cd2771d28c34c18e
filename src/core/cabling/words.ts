/** The words that a line has for fields, as the tables of fields say them. */
import type { z } from '../base/zod';
import { groupSchema, hostSchema, linkSchema, portSchema, switchSchema, vlanSchema } from '../model/document';
import { nodeOf, type LineWords, type Node } from '../model/field';
import { writtenName } from './tokens';

/** What a word of a line does: it sets a field to a value, or to what stands after it. */
export type FieldWord = { readonly key: string; readonly detail: string } & (
  | { readonly kind: 'words'; readonly value: unknown }
  | (Extract<LineWords, { kind: 'value' }> & { readonly node: Node })
);

/** By word, those that stand for a value first. */
export type FieldWords = ReadonlyMap<string, FieldWord>;

function wordsOf(schema: z.ZodType): FieldWords {
  const node = nodeOf(schema);
  const fields = node.kind === 'group' ? [...node.fields] : [];
  const found = fields.flatMap(([key, inside]): [string, FieldWord][] => {
    const line = inside.facts?.line;
    switch (line?.kind) {
      case undefined:
        return [];
      case 'words':
        return line.words.map(([word, value, detail = '']) => [word, { kind: 'words', key, value, detail }]);
      case 'value':
        return [[line.word, { ...line, key, node: inside }]];
    }
  });
  return new Map([...found].sort(([, a], [, b]) => Number(a.kind === 'value') - Number(b.kind === 'value')));
}

/** The words for the fields of what a statement is about. */
export const FIELD_WORDS = {
  switch: wordsOf(switchSchema),
  port: wordsOf(portSchema),
  cable: wordsOf(linkSchema),
  host: wordsOf(hostSchema),
  vlan: wordsOf(vlanSchema),
  group: wordsOf(groupSchema),
} as const;

/** Settings as words; fields that no line has a word for are left out. */
export function settingWords(words: FieldWords, settings: object): string[] {
  return [...words].flatMap(([word, field]) => {
    const value = (settings as Readonly<Record<string, unknown>>)[field.key];
    if (value === undefined) return [];
    if (field.kind === 'words') return field.value === value ? [word] : [];
    const written = field.offer === 'vlans' ? String(value) || 'none' : field.written?.as(value as never);
    const text =
      written ?? (typeof value === 'object' ? Object.values(value as object).join(',') : writtenName(String(value)));
    return [`${word} ${text}`];
  });
}

/** The fields of a thing that a line has words for, without those that are as they are where nothing is said. */
export function saidOf(schema: z.ZodType, thing: object): Readonly<Record<string, unknown>> {
  const node = nodeOf(schema);
  const fields = node.kind === 'group' ? [...node.fields] : [];
  return Object.fromEntries(
    fields.flatMap(([key, { facts, standard }]) => {
      const value = (thing as Readonly<Record<string, unknown>>)[key];
      return facts?.line && value !== undefined && value !== standard ? [[key, value] as const] : [];
    }),
  );
}
