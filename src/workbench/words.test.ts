/** One word a thing: no text of the screen uses a word that docs/glossary.md replaces by another. */
import { readFileSync, readdirSync, statSync } from 'node:fs';
import path from 'node:path';
import ts from 'typescript';

/** The words of the glossary's last table, each with what to say instead. */
function replaced(): (readonly [never: string, say: string])[] {
  const glossary = readFileSync('docs/glossary.md', 'utf8');
  const [, table = ''] = glossary.split('## Words of the screen');
  return [...table.matchAll(/^\| (.+?) \| (.+?) \|$/gm)]
    .filter(([, say]) => say !== 'say')
    .flatMap(([, say, never]) => never!.split(', ').map((word) => [word, say!] as const));
}

const files = (at: string): string[] =>
  statSync(at).isFile() ? [at] : readdirSync(at).flatMap((name) => files(path.join(at, name)));

/** What a source file may put on the screen: texts between tags, and strings and templates of more than one word or with a capital. */
function textsOf(file: string): string[] {
  const source = readFileSync(file, 'utf8');
  const tree = ts.createSourceFile(file, source, ts.ScriptTarget.Latest, true);
  const texts: string[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node) || ts.isExportDeclaration(node)) return;
    if (ts.isJsxText(node)) texts.push(node.text);
    if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node))
      texts.push(isLabel(node.parent) ? `${node.text} ` : node.text);
    if (ts.isTemplateExpression(node))
      texts.push([node.head.text, ...node.templateSpans.map((span) => span.literal.text)].join(' … '));
    ts.forEachChild(node, visit);
  };
  visit(tree);
  return texts
    .map((text) => text.replace(/\s+/g, ' '))
    .filter((text) => / |^[A-Z]/.test(text))
    .map((text) => text.trim());
}

/** What a field or a control is called, be it one word. */
const isLabel = (node: ts.Node): boolean =>
  (ts.isPropertyAssignment(node) || ts.isJsxAttribute(node)) &&
  /^(label|text|says|absent|present|title|placeholder|aria-label|headerName)$/.test(node.name.getText());

/** Texts with a replaced word, each with the word and what to say. */
const wrongIn = (texts: readonly string[], words: ReturnType<typeof replaced>): string[] =>
  words.flatMap(([never, say]) => {
    const found = new RegExp(`(^|[^\\p{L}\\p{N}$-])${never}($|[^\\p{L}\\p{N}-])`, 'iu');
    return texts.filter((text) => found.test(text)).map((text) => `${text}: say ${say}, not ${never}`);
  });

const ROOMS = [
  ...readdirSync('src/workbench/lenses').map((name) => `src/workbench/lenses/${name}`),
  ...['designs', 'inspector', 'map', 'shell', 'state', 'ui'].map((name) => `src/workbench/${name}`),
  'src/app',
  'src/core',
];

describe('the words of the screen', () => {
  const words = replaced();
  it('are listed', () => expect(words.length).toBeGreaterThan(20));

  it('are told from those that they replace', () => {
    expect(wrongIn(['Take back the last change', 'back to take', 'clockwise'], words)).toEqual([
      'Take back the last change: say undo, redo, not take back',
    ]);
  });

  it.each(ROOMS)('%s says each thing by its one word', (room) => {
    const texts = files(room)
      .filter((file) => /\.tsx?$/.test(file) && !/\.test\.tsx?$|\/testing/.test(file))
      .map((file) => ({ file, wrong: wrongIn(textsOf(file), words) }));
    expect(texts.filter(({ wrong }) => wrong.length > 0)).toEqual([]);
  });
});
