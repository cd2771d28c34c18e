/** Templates: what they see, what they make, and what they are kept from. */
import fc from 'fast-check';
import { fernhollow, townOffice, valleyStation } from '../../demo/demos';
import { editAll } from '../../edit/edit';
import { VlanSet } from '../../model/vlanSet';
import { anyDesign, networkOf } from '../../testing/networks';
import { tries } from '../../testing/runs';
import { readCsv } from '../csv';
import { settingsFiles } from '../settings/forms';
import { settingsOf } from '../settings/settings';
import { EXAMPLES } from './examples';
import { formsOf, TemplateError, templateForm } from './form';
import { OWN_FILTERS, renderTemplate } from './liquid';

const made = (text: string, sees: object = {}): string => {
  const done = renderTemplate(text, sees);
  if (!done.ok) throw new Error(done.error.says);
  return done.value;
};

it('comes with examples that can be done to any switch', () => {
  fc.assert(
    fc.property(
      fc.oneof(anyDesign, fc.constantFrom(fernhollow(), valleyStation(), townOffice())),
      fc.constantFrom(...EXAMPLES),
      (design, example) => {
        for (const sw of settingsOf(design)) expect(renderTemplate(example.text, { ...sw, was: null }).ok).toBe(true);
      },
    ),
    { numRuns: tries(40) },
  );
  const lodge = settingsOf(fernhollow()).find(({ id }) => id === 'lodge')!;
  expect(made(EXAMPLES[0]!.text, lodge)).toContain('- port1, to ridge-a port7: member of bundle1\n');
  const csv = readCsv(made(EXAMPLES[2]!.text, lodge));
  expect(csv.ok && csv.value.rows.map(({ values }) => values.port)).toEqual(lodge.ports.map((port) => port.interface));
});

it('writes ranges as people do, of numbers, of ports and of texts, and takes them apart again', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 1, max: 4094 }), { maxLength: 40 }), (numbers) => {
      const text = VlanSet.empty.with(numbers).format();
      expect(made('{{ n | ranges }}', { n: numbers })).toBe(text);
      expect(made('{{ n | ranges }}', { n: numbers.map((number) => ({ number })) })).toBe(text);
      expect(made('{{ t | numbers | join: "," }}', { t: text })).toBe(
        [...new Set(numbers)].sort((a, b) => a - b).join(),
      );
    }),
  );
  expect(made('{{ "3,5-7" | ranges: " and ", " to " }}')).toBe('3 and 5 to 7');
  expect(made('{% if "3,5-7" | has_number: 6 %}yes{% endif %}')).toBe('yes');
  expect(OWN_FILTERS.every((filter) => !renderTemplate(`{{ x | ${filter}x }}`, { x: '' }).ok)).toBe(true);
});

it('keeps what people have typed in a cell, in a word of a shell, on a line', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'binary' }), (name) => {
      const cells = readCsv(`a,b\n${made('{{ name | csv }},{{ "x" }}', { name: name.replaceAll(/[\r\n]/g, ' ') })}`);
      expect(cells.ok && cells.value.rows[0]!.values.b).toBe('x');
      const word = made('{{ name | shell }}', { name });
      expect(word.replaceAll(String.raw`'\''`, '')).toMatch(/^'[^']*'$/s);
      expect(made('{{ name | one_line }}', { name })).not.toMatch(/[\n\r\u2028\u2029]/);
    }),
  );
  expect(made('{{ "=1+1" | csv }}')).toBe(`"'=1+1"`);
});

it('tells what is wrong at its line', () => {
  for (const [text, line, says] of [
    ['a\n{{ nobody }}', 2, 'undefined variable: nobody'],
    ['a\n\n{{ x | rangs }}', 3, 'undefined filter: rangs'],
    ['{% for x in y %}', 1, 'not closed'],
    ['{{ "1-x" | ranges }}', 1, 'a list of numbers such as 15,25-29 is expected'],
    ['\n{% include "/etc/passwd" %}', 2, 'other files are not read from here'],
    ['{% render "./package.json" %}', 1, 'other files are not read from here'],
    ['{{ x.constructor }}', 1, 'undefined variable'],
    ['{{ x.__proto__.polluted }}', 1, 'undefined variable'],
  ] as const)
    expect(renderTemplate(text, { x: 'x', y: [] })).toEqual({
      ok: false,
      error: { line, column: expect.any(Number) as number, says: expect.stringContaining(says) as string },
    });
});

it('stops what would go on for ever, or take all memory', () => {
  const start = Date.now();
  for (const text of [
    '{% for i in (1..100000000) %}x{% endfor %}',
    '{% for i in (1..30000) %}{% for j in (1..30000) %}{% assign k = j %}{% endfor %}{% endfor %}',
    '{% assign s = "xxxxxxxxxxxxxxxx" %}{% for i in (1..60) %}{% assign s = s | append: s %}{% endfor %}',
  ])
    expect(renderTemplate(text, {})).toMatchObject({
      ok: false,
      error: { says: expect.stringMatching(/limit exceeded/) as string },
    });
  expect(Date.now() - start).toBeLessThan(20_000);
});

it('is a form like others: kept in the design, of a difference only where something differs', () => {
  const design = networkOf({ a: {}, b: {} }, ['a 1 = b 1']);
  const template = { id: 't1', name: 'Mine', end: '.mine', text: '{% if was %}was {{ was.mac }} {% endif %}{{ mac }}' };
  const kept = editAll(design, [
    { do: 'keep-template', template },
    { do: 'set-bridge-priority', switch: 'b' as never, tree: null, priority: 4096 },
  ]);
  if (!kept.ok) throw new Error(kept.error.found);
  const form = formsOf(kept.value.design).find(({ key }) => key === 'template:t1')!;
  expect(settingsFiles(kept.value.design, form).map(({ files }) => files[0])).toEqual([
    { name: 'a.mine', text: '02:00:00:00:00:01' },
    { name: 'b.mine', text: '02:00:00:00:00:02' },
  ]);
  expect(settingsFiles(kept.value.design, form, { from: design }).map(({ files }) => files[0])).toEqual([
    { name: 'b.mine', text: 'was 02:00:00:00:00:02 02:00:00:00:00:02' },
  ]);
  const [sw] = settingsOf(design);
  expect(() => templateForm({ ...template, text: '{{ x }}' }).write(sw!, null)).toThrow(TemplateError);
  const forgotten = editAll(kept.value.design, [{ do: 'forget-template', template: 't1' }]);
  expect(forgotten.ok && forgotten.value.design.templates).toEqual([]);
});
