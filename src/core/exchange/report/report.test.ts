/** Reports: whatever the design is they are whole, need nothing from outside, and run nothing that people have typed. */
import fc from 'fast-check';
import { everyFailure } from '../../analysis/failures/everyFailure';
import { planChange } from '../../analysis/plans/changePlan';
import { fernhollow, townOffice, valleyStation } from '../../demo/demos';
import { editAll } from '../../edit/edit';
import type { Design } from '../../model/document';
import { anyDesign, networkOf } from '../../testing/networks';
import { tries } from '../../testing/runs';
import { solve } from '../../tree/solve';
import { CHAPTERS } from './chapters';
import { reportHtml, wholeReport, type Draw, type Wanted } from './html';
import type { Earlier, Subject } from './report';

const draw: Draw = (trees, of, title) =>
  `<?xml version="1.0"?>\n<svg data-of="${of}">${trees.join()} ${title.length}</svg>`;
const subjectOf = (design: Design, before: Earlier | null = null): Subject => ({
  design,
  revision: 7,
  at: '2026-01-02T03:04:05Z',
  before,
  failures: everyFailure(solve(design)),
});
const written = (
  design: Design,
  wanted: readonly Wanted[] = wholeReport(false),
  before: Earlier | null = null,
): string => reportHtml(subjectOf(design, before), wanted, draw, ':root{}');

it('has every chapter of every design, and nothing from outside', () => {
  fc.assert(
    fc.property(fc.oneof(anyDesign, fc.constantFrom(fernhollow(), valleyStation(), townOffice())), (design) => {
      const html = written(design);
      for (const { key, ofChange } of CHAPTERS) expect(html.includes(`<section id="${key}"`)).toBe(!ofChange);
      expect(html).not.toMatch(/(src|href)="(?!#)|url\((?!data:)|@import|<script|<\?xml/i);
      expect(html.match(/<section/g)).toHaveLength(html.match(/<\/section>/g)!.length);
    }),
    { numRuns: tries(20) },
  );
});

it('tells of the observatory what an engineer wants to know', () => {
  const html = written(fernhollow());
  for (const words of [
    '8 switches, 15 links, 6 VLANs, 9 hosts; spanning tree: Per-VLAN rapid.',
    'lodge is root by MAC address alone',
    'revision 7, 2026-01-02',
    'Of 33 single failures',
  ])
    expect(html).toContain(words);
  expect(html).toContain('<svg data-of="now">vlan:1 ');
});

it('has the chapters that are asked for, in their order, with their notes', () => {
  const html = written(fernhollow(), [
    { chapter: 'cables', note: 'Drawn on <Monday>\nand later' },
    { chapter: 'roots', note: '' },
    { chapter: 'gone', note: '' },
  ]);
  expect(html.indexOf('<section id="cables"')).toBeLessThan(html.indexOf('<section id="roots"'));
  expect(html).toContain('<p class="note">Drawn on &lt;Monday&gt;<br>and later</p>');
  expect(html.match(/<section/g)).toHaveLength(2);
});

it('shows two states side by side, and the way from one to the other', () => {
  const before = fernhollow();
  const edited = editAll(before, [
    { do: 'set-bridge-priority', switch: 'ridge-a' as never, tree: 'vlan:15' as never, priority: 4096 },
  ]);
  if (!edited.ok) throw new Error(edited.error.found);
  const { design } = edited.value;
  const change = planChange(before, design);
  const html = written(design, wholeReport(true), {
    label: 'revision 3',
    design: before,
    change: change.ok ? change.value : change.error,
  });
  expect(html).toContain('From revision 3 to now: 1 setting;');
  expect(html).toContain('<svg data-of="before">vlan:15 ');
  expect(html).toContain('ridge-a: priority in VLAN 15 as for all trees to 4096');
  expect(html).toContain('New root of VLAN 15: ridge-a.');
  const none = written(design, wholeReport(true), { label: 'revision 3', design, change: 'Nothing differs.' });
  expect(none).toContain('<p>Nothing differs.</p>');
});

it('runs nothing that people have typed', () => {
  const sharp = '"><img src=x onerror=alert(1)><script>alert(2)</script>&';
  const design = {
    ...networkOf({ a: { name: sharp }, b: {} }, ['a 1 = b 1'], {}, { name: sharp, notes: sharp }),
  };
  const html = written(design, [...wholeReport(false).map((each) => ({ ...each, note: sharp }))]);
  expect(html).not.toMatch(/<img|<script/);
  expect(html).toContain('&lt;script&gt;');
});
