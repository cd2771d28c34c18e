/** What the map must be at any size: boxes apart, text of a size to read, none over another, blocked ends in sight. */
import { expect, test, type APIRequestContext, type Page } from '@playwright/test';
import { campusOf } from '../src/core/testing/campus';
import { leanDesign } from '../src/core/model/derive/write';
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
  page.locator('[data-switch]').evaluateAll((all) =>
    all.map((each) => {
      const { x, y, width, height } = each.getBoundingClientRect();
      return { text: (each as HTMLElement).dataset.switch!, at: { x, y, width, height } };
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

const DESIGNS = [
  ['the demo', { do: 'demo' }],
  ['the valley', { do: 'demo', site: 'valley' }],
  ['a campus of 50', { do: 'import', document: leanDesign(campusOf({ switches: 50, vlans: 8, perPair: 10 })) }],
  ['a campus of 200', { do: 'import', document: leanDesign(campusOf({ switches: 200, vlans: 32 })) }],
] as const;

for (const [name, data] of DESIGNS) {
  test(`${name} can be read in every lens, whole and from near`, async ({ page, request }) => {
    test.slow();
    await open(page, request, data);
    for (const lens of ['Cable', 'Root', 'Steer', 'Bundle', 'Break']) {
      await page.getByRole('tab', { name: lens, exact: true }).click();
      for (const closer of lens === 'Root' ? [0, 5] : [0]) {
        for (let i = 0; i < closer; i += 1) await page.getByRole('button', { name: 'closer' }).click();
        await atRest(page);
        const shown = await texts(page);
        expect(over(await boxes(page)), `boxes, ${lens} ${closer}`).toEqual([]);
        expect(over(shown), `texts, ${lens} ${closer}`).toEqual([]);
        expect(
          shown.filter(({ size, name }) => size < (name ? 11.99 : 9.99)).map(({ text, size }) => `${text} ${size}`),
          `sizes, ${lens} ${closer}`,
        ).toEqual([]);
      }
      await page.getByRole('button', { name: 'whole map' }).click();
    }
  });
}
