/**
 * What leads from one document of data by YANG models to another, as a YANG Patch in JSON (RFC 8072, RFC 7951): an ordered list of
 * edits, each with the place that it is about (RFC 8040, 3.5.3).
 */
import equal from 'fast-deep-equal';

type Json = Record<string, unknown>;

interface Edit {
  readonly operation: 'merge' | 'replace' | 'remove';
  readonly target: string;
  readonly value?: unknown;
}

/** `keys` gives the key leaf of each list, by the list's name. Null where nothing differs. */
export function yangPatch(
  name: string,
  before: object,
  after: object,
  keys: Readonly<Record<string, string>>,
): object | null {
  const edits = editsBetween('', before as Json, after as Json, keys);
  // What is new has to be there before something else names it; what goes is named by nothing any more at the end.
  const ordered = [
    ...edits.filter(({ operation }) => operation !== 'remove'),
    ...edits.filter(({ operation }) => operation === 'remove'),
  ];
  if (ordered.length === 0) return null;
  return {
    'ietf-yang-patch:yang-patch': {
      'patch-id': name,
      edit: ordered.map((edit, i) => ({ 'edit-id': `edit${i + 1}`, ...edit })),
    },
  };
}

function editsBetween(path: string, before: Json, after: Json, keys: Readonly<Record<string, string>>): Edit[] {
  return [...new Set([...Object.keys(before), ...Object.keys(after)])].flatMap((name): Edit[] => {
    const [was, is] = [before[name], after[name]];
    if (equal(was, is)) return [];
    const target = `${path}/${name}`;
    const key = keys[local(name)];
    if (key !== undefined && isList(was ?? is))
      return inList(target, name, (was ?? []) as Json[], (is ?? []) as Json[], key, keys);
    if (is === undefined) return [{ operation: 'remove', target }];
    if (was === undefined) return [{ operation: 'merge', target, value: { [name]: is } }];
    if (isNode(was) && isNode(is)) return editsBetween(target, was, is, keys);
    return [{ operation: 'replace', target, value: { [name]: is } }];
  });
}

function inList(
  target: string,
  name: string,
  was: readonly Json[],
  is: readonly Json[],
  key: string,
  keys: Readonly<Record<string, string>>,
): Edit[] {
  const [before, after] = [was, is].map((list) => new Map(list.map((entry) => [String(entry[key]), entry])));
  return [...new Set([...before!.keys(), ...after!.keys()])].flatMap((id): Edit[] => {
    const [old, now] = [before!.get(id), after!.get(id)];
    const entry = `${target}=${encodeURIComponent(id)}`;
    if (!now) return [{ operation: 'remove', target: entry }];
    if (!old) return [{ operation: 'merge', target: entry, value: { [name]: [now] } }];
    return editsBetween(entry, old, now, keys);
  });
}

const isNode = (value: unknown): value is Json => typeof value === 'object' && value !== null && !Array.isArray(value);

/** A list has entries; a leaf-list has values. */
const isList = (value: unknown): boolean => Array.isArray(value) && value.every(isNode);

const local = (name: string): string => name.slice(name.indexOf(':') + 1);
