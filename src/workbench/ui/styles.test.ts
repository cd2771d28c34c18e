/** Style sheets and components agree: a class that is asked for is there, and none stands unused. */
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';

const files = readdirSync('src', { recursive: true, encoding: 'utf8' }).map((file) => path.join('src', file));
const read = (file: string): string => readFileSync(file, 'utf8');

interface Use {
  readonly component: string;
  readonly sheet: string;
  readonly name: string;
}

const uses = files
  .filter((file) => file.endsWith('.tsx'))
  .flatMap((component): Use[] => {
    const text = read(component);
    return [...text.matchAll(/import (\w+) from '([^']+\.module\.css)'/g)].flatMap(([, alias, from]) =>
      [...text.matchAll(new RegExp(`[^/\\w]${alias}\\.(\\w+)`, 'g'))].map(([, name]) => ({
        component,
        sheet: path.join(path.dirname(component), from!),
        name: name!,
      })),
    );
  });
const sheets = files.filter((file) => file.endsWith('.module.css'));
const classesOf = (sheet: string): ReadonlySet<string> =>
  new Set(
    [
      ...read(sheet)
        .replace(/\{[^}]*\}/g, '{}')
        .matchAll(/\.([a-zA-Z]\w*)(?![\w-])/g),
    ].map((match) => match[1]!),
  );
/** What other sheets take over from a sheet. */
const composed = sheets.flatMap((sheet) =>
  [...read(sheet).matchAll(/composes: (\w+) from '([^']+)'/g)].map((match) => ({
    component: sheet,
    sheet: path.join(path.dirname(sheet), match[2]!),
    name: match[1]!,
  })),
);

it('has every class that a component or another sheet asks for', () => {
  expect(uses.length).toBeGreaterThan(200);
  const classes = new Map(sheets.map((sheet) => [sheet, classesOf(sheet)]));
  expect([...uses, ...composed].filter(({ sheet, name }) => !classes.get(sheet)?.has(name))).toEqual([]);
});

it('has no class that nobody asks for', () => {
  const asked = new Set([...uses, ...composed].map(({ sheet, name }) => `${sheet} ${name}`));
  expect(
    sheets.flatMap((sheet) =>
      [...classesOf(sheet)].map((name) => `${sheet} ${name}`).filter((each) => !asked.has(each)),
    ),
  ).toEqual([]);
});
