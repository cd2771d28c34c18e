/** Pictures: one SVG that says what the map says, with no page around it. */
import { JSDOM } from 'jsdom';
import { foldableGroups, standIns } from '../../../core/analysis/groups/groups';
import { fernhollow } from '../../../core/demo/demos';
import type { Design } from '../../../core/model/document';
import type { TreeId } from '../../../core/model/ids';
import { nameOf } from '../../../core/model/names';
import { campusOf } from '../../../core/testing/campus';
import { networkOf } from '../../../core/testing/networks';
import { solve } from '../../../core/tree/solve';
import type { PictureOf } from './pictureOf';
import { pictureText, tokensFor } from './svgText';

const of = (design: Design, more: Partial<PictureOf> = {}): PictureOf => ({
  design,
  solution: solve(design),
  trees: ['vlan:15' as TreeId],
  stands: new Map(),
  open: [],
  scale: 1,
  title: design.name,
  css: 'svg{--ink:#000}',
  ...more,
});
const svgOf = (wish: PictureOf) => {
  const { document } = new JSDOM(pictureText(wish).replace(/^<\?xml[^>]*>/, ''), { contentType: 'image/svg+xml' })
    .window;
  const texts = [...document.querySelectorAll('text')].map((each) => each.textContent.trim());
  return { document, texts };
};

it('has every switch by name, a letter at ends, the roots and what letters mean', () => {
  const demo = fernhollow();
  const { document, texts } = svgOf(of(demo));
  for (const sw of demo.switches) expect(texts).toContain(nameOf(sw));
  expect(texts).toEqual(expect.arrayContaining(['R', 'D', 'A', 'VLAN 15: root lodge', 'Fernhollow Observatory']));
  expect(texts).toContain('R root, D designated, A alternate, B backup');
  expect(document.documentElement.getAttribute('viewBox')).toMatch(/^0 0 \d+ \d+$/);
  expect(document.querySelector('[class]')).toBeNull();
});

it('shows cables with their speeds where no tree is asked for, and one label for trees that agree', () => {
  const demo = fernhollow();
  const { texts } = svgOf(of(demo, { trees: [] }));
  expect(texts).toContain('10 Gb/s');
  expect(texts).not.toContain('A');
  expect(svgOf(of(demo, { trees: ['vlan:15', 'vlan:25'] as TreeId[] })).texts).toContain('R 15,25');
});

it('has a box for each folded group, which counts what the map counts', () => {
  const campus = campusOf({ switches: 70, vlans: 2 });
  const groups = foldableGroups(campus);
  const stands = standIns(groups, new Set(groups.map(({ group }) => group.id)));
  const { texts } = svgOf(of(campus, { stands, trees: ['vlan:2' as TreeId] }));
  expect(texts.filter((text) => /^\d+ switches$/.test(text))).toHaveLength(groups.length);
  expect(texts.some((text) => text.startsWith('root acc-'))).toBe(true);
  expect(texts.filter((text) => text.startsWith('acc-'))).toEqual([]);
});

it('is cut to what is in view, keeps markup in names as text, and draws an empty design', () => {
  const demo = fernhollow();
  const odd = { ...demo, switches: demo.switches.map((sw, i) => (i === 0 ? { ...sw, name: '<b>&' } : sw)) };
  const { document, texts } = svgOf(of(odd, { view: { x: 0, y: 0, width: 300, height: 200 } }));
  expect(document.documentElement.getAttribute('width')).toBe('420');
  expect(texts).toContain('<b>&');
  expect(svgOf(of({ ...demo, switches: [], links: [], hosts: [], bundles: [] })).texts).toContain(
    'Fernhollow Observatory',
  );
});

it('takes its colours out of the style sheet of its scheme', () => {
  const sheet = ':root {\n  --ink: #111;\n  --paper: #eee;\n}\n.dark {\n  --ink: #fff;\n}\nbody {\n}';
  expect(tokensFor(sheet, 'light')).toBe('svg{--ink: #111;--paper: #eee;}');
  expect(tokensFor(sheet, 'dark')).toBe('svg{--ink: #111;--paper: #eee;--ink: #fff;}');
});

it('shows an instant of a run where the map does: states at ends, who is without power then', () => {
  const demo = fernhollow();
  const solution = solve(demo);
  const dark = { ...demo, switches: demo.switches.map((sw) => (sw.id === 'lodge' ? { ...sw, up: false } : sw)) };
  const instant = { picture: solve(dark), state: () => 'learning' as const, isHeld: () => false };
  const { document, texts } = svgOf(of(demo, { solution, instant }));
  const states = new Set([...document.querySelectorAll('[data-state]')].map((end) => end.getAttribute('data-state')));
  expect([...states]).toEqual(['learning']);
  expect(texts).not.toContain('VLAN 15: root lodge');
});

it('has a band for each bundle, open where the bundle is down', () => {
  const links = [1, 2].map((n) => `a ${n} = b ${n}`);
  const bundled = (mode: string) =>
    networkOf(
      { a: {}, b: {} },
      links,
      {},
      {
        bundles: ['a', 'b'].map((id, i) => ({ id: `b${i}`, number: i + 1, switch: id, ports: ['1', '2'], mode })),
      },
    );
  const bands = (design: Design) =>
    svgOf(of(design, { trees: ['cst' as TreeId] })).document.querySelectorAll(
      '[stroke-linecap="round"][stroke-width="6"]',
    ).length;
  expect(bands(bundled('active'))).toBe(1);
  const open = svgOf(of(bundled('passive'), { trees: ['cst' as TreeId] })).document;
  expect(open.querySelectorAll('[stroke="var(--paper)"][stroke-width="3"]')).toHaveLength(1);
});
