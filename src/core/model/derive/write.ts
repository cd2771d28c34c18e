/**
 * Writing a design as people keep it under version control: keys in the order of the tables, defaults left out, two spaces
 * of indent. `readDesignText(writeDesign(d))` gives `d` again.
 */
import equal from 'fast-deep-equal';
import { designNode, type Design } from '../document';
import type { Node } from '../field';

/** The document as text, ending in a line feed. */
export const writeDesign = (design: Design): string => `${JSON.stringify(leanDesign(design), null, 2)}\n`;

/** The document as a plain JSON value with defaults left out. */
export const leanDesign = (design: Design): Record<string, unknown> =>
  lean(designNode, design) as Record<string, unknown>;

/** A value without what is filled in when it is read. */
function lean(node: Node, value: unknown): unknown {
  if (node.facts?.whole) return value;
  switch (node.kind) {
    case 'leaf':
      return value;
    case 'list':
      return (value as readonly unknown[]).map((item) => lean(node.item, item));
    case 'record':
      return Object.fromEntries(Object.entries(value as object).map(([key, each]) => [key, lean(node.value, each)]));
    case 'union': {
      const option = node.options.get((value as Record<string, unknown>)[node.discriminator]);
      return option ? lean(option, value) : value;
    }
    case 'group':
      return Object.fromEntries(
        [...node.fields].flatMap(([key, field]) => {
          const own = (value as Record<string, unknown>)[key];
          return goesWithoutSaying(field, own) ? [] : [[key, lean(field, own)]];
        }),
      );
  }
}

const goesWithoutSaying = ({ facts, standard }: Node, value: unknown): boolean =>
  value === undefined || (standard !== undefined && !facts?.always && equal(value, standard));

/** A file name for a design: `fernhollow-observatory.knot.json`. */
export const fileNameOf = (design: Design): string => `${fileStemOf(design)}.knot.json`;

/** What names of files about a design begin with, as every file system takes it: `fernhollow-observatory`. */
export function fileStemOf(design: Design): string {
  const stem = design.name
    .normalize('NFKD')
    .replace(/[^A-Za-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase()
    .slice(0, 60);
  return stem || 'design';
}
