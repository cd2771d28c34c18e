/** Designs that differ in one field: every field of every table, found by walking the schema, so that none is forgotten. */
import equal from 'fast-deep-equal';
import fc from 'fast-check';
import { designNode, type Design } from '../model/document';
import { insideOf, type Node } from '../model/field';
import { changeProblems } from '../model/read';
import { fromSchema, type Pools } from './fromSchema';

/** A field somewhere in a design: `switches.ports.speed` of the third port of the first switch. */
export interface FieldPlace {
  /** Its keys without places in lists and names of trees: the same for every switch. */
  readonly field: string;
  readonly path: readonly (string | number)[];
  readonly node: Node;
}

/** A field that is told, compared and written as one value. */
const isOne = (node: Node): boolean => node.kind === 'leaf' || node.kind === 'union' || node.facts?.text !== undefined;

/** Trees under which settings are tried. */
const TREES = ['cst', 'vlan:1', 'vlan:15', 'mst:0', 'mst:1'];

/** Every field that the things of a design have or may have; identifiers are not among them, since they tell things apart. */
export function placesIn(design: Design): FieldPlace[] {
  const found: FieldPlace[] = [];
  walk(designNode, design, [], '');
  return found;

  function walk(node: Node, value: unknown, path: FieldPlace['path'], field: string): void {
    if (isOne(node)) return void (node.facts && found.push({ field, path, node }));
    const under = (key: string): string => (field === '' ? key : `${field}.${key}`);
    switch (node.kind) {
      case 'group':
        if (node.optional && node.facts) {
          found.push({ field, path, node });
          if (value === undefined) return;
        }
        for (const key of node.fields.keys())
          walk(insideOf(node, key)!, (value as Parts | undefined)?.[key], [...path, key], under(key));
        return;
      case 'list':
        (value as readonly unknown[]).forEach((item, i) => walk(node.item, item, [...path, i], field));
        return;
      case 'leaf':
      case 'union':
        return;
      case 'record':
        for (const tree of TREES) walk(node.value, (value as Parts | undefined)?.[tree], [...path, tree], field);
    }
  }
}

type Parts = Readonly<Record<string | number, unknown>>;

/** The same design with another value at a place; undefined takes it away. Null where the result would not be legal, or no other. */
export function withValue(design: Design, path: FieldPlace['path'], value: unknown): Design | null {
  const put = (at: unknown, [key, ...rest]: readonly (string | number)[]): unknown => {
    const next = rest.length === 0 ? value : put((at as Parts | undefined)?.[key!] ?? {}, rest);
    if (Array.isArray(at)) return at.map((item, i): unknown => (i === key ? next : item));
    const nothing = TREES.includes(String(key)) && Object.keys(next as object).length === 0;
    const { [key!]: _, ...others } = (at ?? {}) as Parts;
    return next === undefined || nothing ? others : { ...others, [key!]: next };
  };
  const next = put(design, path) as Design;
  // Only the part that changed is read again, which fills in what goes without saying.
  const [first, second] = path as [keyof Design, number | undefined];
  const node = insideOf(designNode, first)!;
  const whole = typeof second === 'number' && node.kind === 'list';
  const part = (whole ? node.item : node).schema.safeParse(
    whole ? (next[first] as readonly unknown[])[second] : next[first],
  );
  if (!part.success) return null;
  const made = whole
    ? (next[first] as readonly unknown[]).map((item, i) => (i === second ? part.data : item))
    : part.data;
  const changed = { ...next, [first]: made };
  return equal(changed, design) || changeProblems(design, changed).length > 0 ? null : changed;
}

/** Texts and numbers that are legal somewhere in a design. */
function poolsOf(design: Design): Pools {
  const switches = design.switches.map(({ id }) => id as string);
  const ports = [...new Set(design.switches.flatMap((sw) => sw.ports.map(({ id }) => id as string)))];
  return {
    texts: {
      name: ['one name', 'another'],
      switch: switches.length > 0 ? switches : ['none'],
      port: ports.length > 0 ? ports : ['none'],
      ports: ports.length > 0 ? ports : ['none'],
      mac: ['02:00:00:00:f0:01', '02:00:00:00:f0:02', '02:00:00:00:00:00'],
      region: [...design.regions.map(({ id }) => id as string), 'none'],
      group: [...design.groups.map(({ id }) => id as string), 'none'],
      within: [...design.groups.map(({ id }) => id as string), 'none'],
      link: [...design.links.map(({ id }) => id as string), 'none'],
      bundle: [...design.bundles.map(({ id }) => id as string), 'none'],
      peerLink: [...design.bundles.map(({ id }) => id as string), 'none'],
      keepalivePort: ports.length > 0 ? ports : ['none'],
      tree: TREES,
      allowed: ['15', '1-4094', '1,15,25', ''],
      speaksFor: ['15', '25-35', ''],
      vlans: ['10', '15', '10,20', '30'],
      hash: ['2', '2+3', '3+4'],
      at: ['2026-11-23T10:00:00Z'],
      notes: ['a note', 'another'],
      look: ['here', ''],
    },
    numbers: {
      vlan: [1, 15, 25],
      native: [1, 15],
      id: [1, 2, 3],
      speed: [10, 100, 1000, 10_000],
      cost: [1, 2, 4000, 20_000, 60_000],
      externalCost: [1, 20_000, 60_000],
      priority: [0, 16, 128, 240, 4096, 32_768, 61_440, 10],
      systemPriority: [1, 32_768, 65_535],
      key: [1, 7],
      delay: [1, 500, 100_000],
      load: [0, 10, 500],
      maxAge: [6, 7, 8, 20, 40],
      maxHops: [6, 7, 20],
      forwardDelay: [4, 15, 30],
      until: [5, 60],
      recovery: [30, 300],
      domain: [7],
      pairNumber: [1, 2],
      talk: [0.01, 1],
      number: [1, 2, 3, 40, 900, 2000],
    },
    other: { texts: ['a', 'b'], numbers: [1, 2, 3, 5, 10] },
  };
}

/** Another value for a field of a design. */
export const valueFor = (design: Design, { node, path }: FieldPlace): fc.Arbitrary<unknown> =>
  fromSchema(node.schema, poolsOf(design), String(path.at(-1)));

/** A design with one field otherwise, wherever that is legal; the design itself where it is not. */
export const changedIn = (design: Design): fc.Arbitrary<Design> => {
  const places = placesIn(design);
  // Fields of large things are no likelier than those of small ones.
  const byField = new Map<string, FieldPlace[]>();
  for (const place of places) byField.set(place.field, [...(byField.get(place.field) ?? []), place]);
  return fc
    .constantFrom(...byField.values())
    .chain((same) => fc.constantFrom(...same))
    .chain((place) => valueFor(design, place).map((value) => withValue(design, place.path, value) ?? design));
};

/** A design with any of its fields set, one after the other: what a network may have, it may have here. */
export const furnished = (design: Design, steps = 12): fc.Arbitrary<Design> =>
  steps === 0 ? fc.constant(design) : changedIn(design).chain((next) => furnished(next, steps - 1));
