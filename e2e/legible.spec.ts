/** What the map must be at any size: boxes apart, text of a size to read, none over another, blocked ends in sight. */
import { expect, test, type APIRequestContext, type Page } from '@playwright/test';
import { campusOf } from '../src/core/testing/campus';
import { leanDesign } from '../src/core/model/derive/write';
import type { Design } from '../src/core/model/document';
import type { SwitchId } from '../src/core/model/ids';
import { blocks } from '../src/core/tree/settled';
import { solve } from '../src/core/tree/solve';
import { settled } from './design';

interface Shown {
  readonly text: string;
  readonly size: number;
  readonly name: boolean;
  readonly at: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
}

/** Opens a design that a request makes; gives its page once the map is at rest. */
async function open(page: Page, request: APIRequestContext, data: object): Promise<void> {
  const { id } = (await (await request.post('/api/designs', { data })).json()) as { id: string };
  await page.goto(`/designs/${id}`);
  await settled(page);
}

const imported = (design: Design) => ({ do: 'import', document: leanDesign(design) });

/** Waits until the map has not moved for some frames: it is laid out again when the view comes to rest. */
const atRest = (page: Page): Promise<unknown> =>
  page.waitForFunction(
    () =>
      new Promise((done) => {
        const look = () => document.querySelector('.react-flow')?.innerHTML.length;
        const before = look();
        setTimeout(() => done(look() === before), 250);
      }),
  );

/** Every visible text of the map, with its size on the screen and the rectangle of its ink, a little trimmed. */
const texts = (page: Page): Promise<Shown[]> =>
  page.evaluate(() => {
    const found: { text: string; size: number; name: boolean; at: DOMRect }[] = [];
    const viewport = document.querySelector('.react-flow__viewport')!;
    const walker = document.createTreeWalker(viewport, NodeFilter.SHOW_TEXT);
    const range = document.createRange();
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      const parent = node.parentElement!;
      if (!node.textContent?.trim() || parent.tagName === 'title' || getComputedStyle(parent).visibility === 'hidden')
        continue;
      range.selectNodeContents(node);
      const at = range.getBoundingClientRect();
      if (at.width === 0) continue;
      const styled = parseFloat(getComputedStyle(parent).fontSize);
      const matrix =
        parent instanceof SVGGraphicsElement
          ? parent.getScreenCTM()!.a
          : parent.getBoundingClientRect().height / (parent.offsetHeight || 1);
      found.push({
        text: node.textContent,
        size: styled * matrix,
        name: parent.className.toString().includes('name'),
        at: new DOMRect(at.x + 1, at.y + at.height * 0.22, Math.max(0, at.width - 2), at.height * 0.56),
      });
    }
    return found.map(({ at: { x, y, width, height }, ...rest }) => ({ ...rest, at: { x, y, width, height } }));
  });

const boxes = (page: Page) =>
  page.locator('[data-switch], [data-group]').evaluateAll((all) =>
    all.map((each) => {
      const { x, y, width, height } = each.getBoundingClientRect();
      const { switch: own, group } = (each as HTMLElement).dataset;
      return { text: own ?? group!, at: { x, y, width, height } };
    }),
  );

/** The first pairs that lie over each other, by their texts. */
function over(all: readonly Pick<Shown, 'text' | 'at'>[]): string[] {
  const found: string[] = [];
  all.forEach(({ text, at: a }, i) => {
    for (const { text: other, at: b } of all.slice(i + 1))
      if (a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height)
        found.push(`${text} over ${other}`);
  });
  return found.slice(0, 8);
}

/** Ends that block in the tree shown, as the map tells them: on folded groups, as frayed ends, or as cut lines seen from afar. */
const blockedOnMap = (page: Page) =>
  page.evaluate(() => {
    const sum = (all: Iterable<Element>, of: (each: Element) => number): number =>
      [...all].reduce((total, each) => total + of(each), 0);
    const among = (selector: string) => document.querySelectorAll(`.react-flow ${selector}`);
    return {
      grouped: sum(among('[data-group] [data-blocked]'), (each) => Number(each.getAttribute('data-blocked'))),
      frayed: among('[data-frayed]').length,
      sheaves: [...among('[data-sheaf]')].map((each) => Number(each.getAttribute('data-blocked'))),
      afar: sum(among('[data-afar="blocks"]'), (each) => (each.getAttribute('d')!.match(/M/g) ?? []).length),
    };
  });

/** What the core says of the same tree: ends that block, on switches that pass. */
function blockedOn(design: Design, tree: string, counts: (id: SwitchId) => boolean): number {
  const { network, trees } = solve(design);
  const settledTree = trees.find(({ id }) => id === tree)!;
  return network.ports.filter((_, p) => blocks(settledTree, p) && counts(network.switches[network.owner[p]!]!.id))
    .length;
}

/** Holds what a lens shows against what must be so at any size. */
async function readable(page: Page, where: string): Promise<void> {
  await atRest(page);
  const shown = await texts(page);
  expect(over(await boxes(page)), `boxes, ${where}`).toEqual([]);
  expect(over(shown), `texts, ${where}`).toEqual([]);
  expect(
    shown.filter(({ size, name }) => size < (name ? 11.99 : 9.99)).map(({ text, size }) => `${text} ${size}`),
    `sizes, ${where}`,
  ).toEqual([]);
}

/** Headings that are cut, of the table that is open. */
const cutHeadings = (page: Page): Promise<string[]> =>
  page
    .locator('.MuiDataGrid-columnHeaderTitle')
    .evaluateAll((all) => all.flatMap((each) => (each.scrollWidth > each.clientWidth + 1 ? [each.textContent] : [])));

test('no heading of a table is cut', async ({ page, request }) => {
  await open(page, request, { do: 'demo' });
  for (const each of ['Cable', 'Root', 'Steer', 'Bundle', 'Guard', 'Break']) {
    await lens(page, each);
    const tabs = page.getByRole('tablist', { name: 'Tables' }).getByRole('tab');
    for (const tab of await tabs.all()) {
      await tab.click();
      await expect(page.locator('#drawer-table')).not.toBeEmpty();
      expect(await cutHeadings(page), `${each}, ${await tab.textContent()}`).toEqual([]);
    }
  }
});

const lens = (page: Page, name: string) => page.getByRole('tab', { name, exact: true }).click();

for (const [name, data] of [
  ['the demo', { do: 'demo' }],
  ['the valley', { do: 'demo', site: 'valley' }],
  ['the town office', { do: 'demo', site: 'town' }],
  ['a campus of 50', imported(campusOf({ switches: 50, vlans: 8, perPair: 10 }))],
] as const) {
  test(`${name} can be read in every lens, whole and from near`, async ({ page, request }) => {
    test.slow();
    await open(page, request, data);
    for (const each of ['Cable', 'Root', 'Steer', 'Group', 'Bundle', 'Guard', 'Break']) {
      await lens(page, each);
      await readable(page, each);
      if (each !== 'Root') continue;
      for (let i = 0; i < 5; i += 1) await page.getByRole('button', { name: 'zoom in' }).click();
      await readable(page, `${each}, from near`);
      await page.getByRole('button', { name: 'whole map' }).click();
    }
  });
}

for (const [size, vlans] of [
  [200, 32],
  [500, 200],
] as const) {
  test(`a campus of ${size} can be read folded, with a group open, and whole; every end that blocks is told`, async ({
    page,
    request,
  }) => {
    test.slow();
    const design = campusOf({ switches: size, vlans });
    await open(page, request, imported(design));
    const tree = `vlan:${vlans}`;
    const core = (id: SwitchId): boolean => id.startsWith('core');
    for (const each of ['Cable', 'Root', 'Break']) {
      await lens(page, each);
      await readable(page, `${each}, folded`);
    }
    await lens(page, 'Root');
    await atRest(page);
    const folded = await blockedOnMap(page);
    expect(folded.grouped).toBe(blockedOn(design, tree, (id) => !core(id)));
    expect(folded.frayed + folded.sheaves.reduce((a, b) => a + b)).toBeGreaterThanOrEqual(
      blockedOn(design, tree, core),
    );

    await page
      .locator('[data-group]')
      .nth(1)
      .getByRole('button', { name: 'unfold' })
      .or(page.locator('[data-group]').nth(1))
      .first()
      .dblclick();
    await expect(page.locator('[data-group-outline]')).toHaveCount(1);
    await readable(page, 'one group open');
    await page.getByRole('button', { name: 'unfold', exact: true }).last().click();
    await readable(page, 'whole');
    expect((await blockedOnMap(page)).afar).toBe(blockedOn(design, tree, () => true));
  });
}
