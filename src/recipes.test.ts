/** What docs/recipes.md says holds: its files are there, folders of kinds and their registries agree, and every field is documented. */
import { existsSync, readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { designNode } from './core/model/document';
import type { Node } from './core/model/field';

const read = (file: string): string => readFileSync(file, 'utf8');
const recipes = read('docs/recipes.md');

it('names files and folders that are there', () => {
  const named = [...recipes.matchAll(/`(src\/[^`]+)`/g)].map((match) => match[1]!);
  expect(named.length).toBeGreaterThan(15);
  expect(named.filter((each) => !existsSync(each))).toEqual([]);
});

/** What a file must hold to be a kind; where it is registered. */
const REGISTRIES = [
  ['src/core/model/actions', /= action\(/, 'actions.ts'],
  ['src/core/edit/groups', /= \[\n\s*command\(/, '../commands.ts'],
  ['src/core/exchange/neighbours', /: NeighbourFormat = \{/, 'formats.ts'],
  ['src/workbench/map/glyphs', /: Glyph = \{/, 'glyphs.ts'],
  ['src/cli/commands', /: Verb =/, '../main.ts'],
] as const;

it.each(REGISTRIES)('every kind in %s has its line', (folder, isKind, registry) => {
  const lines = read(path.join(folder, registry));
  const kinds = readdirSync(folder).filter(
    (file) => !file.includes('.test.') && isKind.test(read(path.join(folder, file))),
  );
  expect(kinds.length).toBeGreaterThan(1);
  const stem = (file: string): string => path.basename(file, path.extname(file));
  expect(kinds.filter((file) => !new RegExp(`from '[^']*/${stem(file)}'`).test(lines))).toEqual([]);
});

it('every table of a lens is in a manifest', () => {
  const lenses = 'src/workbench/lenses';
  for (const lens of readdirSync(lenses, { withFileTypes: true }).filter(
    (each) => each.isDirectory() && each.name !== 'shared',
  )) {
    const folder = path.join(lenses, lens.name);
    const manifest = read(path.join(folder, 'index.ts'));
    const tables = readdirSync(folder).filter((file) => /(Table|Matrix)\.tsx$/.test(file));
    expect(tables.filter((file) => !manifest.includes(`'./${path.basename(file, '.tsx')}'`))).toEqual([]);
    expect(read(path.join(lenses, 'lenses.ts'))).toContain(`'./${lens.name}'`);
  }
});

it('every field of a document is in docs/design-file.md', () => {
  const keys = new Set<string>();
  const walk = (node: Node): void => {
    switch (node.kind) {
      case 'group':
        for (const [key, inside] of node.fields) {
          keys.add(key);
          walk(inside);
        }
        return;
      case 'list':
        return walk(node.item);
      case 'record':
        return walk(node.value);
      case 'union':
        for (const option of node.options.values()) walk(option);
        return;
      case 'leaf':
    }
  };
  walk(designNode);
  const documented = read('docs/design-file.md');
  expect([...keys].filter((key) => !new RegExp(`\\b${key}\\b`).test(documented))).toEqual([]);
});
