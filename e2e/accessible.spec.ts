import axe from 'axe-core';
import { expect, test, type Page } from '@playwright/test';
import { openDemo, settled } from './design';
import { LENSES } from '../src/workbench/state/lens';

/** What axe-core finds in a part of the page: rule, place and reason. */
async function violations(page: Page, part: string | null = null, rules: string[] | null = null): Promise<string[]> {
  return page.evaluate(
    async ([within, only]) => {
      interface Node {
        readonly target: readonly string[];
        readonly failureSummary?: string;
      }
      const { axe: checker } = window as unknown as {
        axe: {
          run(
            at: unknown,
            options: unknown,
          ): Promise<{ violations: readonly { readonly id: string; readonly nodes: readonly Node[] }[] }>;
        };
      };
      const found = await checker.run(within ?? document, {
        resultTypes: ['violations'],
        ...(only ? { runOnly: { type: 'rule', values: only } } : {}),
      });
      return found.violations.flatMap(({ id, nodes }) =>
        nodes.map((node) => `${id}: ${node.target.join(' ')} ${node.failureSummary ?? ''}`),
      );
    },
    [part, rules] as const,
  );
}

for (const site of ['observatory', 'valley', 'town'] as const) {
  test(`every view and table of the ${site} is accessible, light and dark`, async ({ page }) => {
    test.setTimeout(150_000);
    const added = await page.request.post('/api/designs', { data: { do: 'demo', site } });
    await page.goto(`/designs/${((await added.json()) as { id: string }).id}`);
    await settled(page);
    await expect(page.getByRole('heading', { level: 1 })).toHaveCount(1);
    await page.evaluate(axe.source);
    await page.emulateMedia({ reducedMotion: 'reduce' });
    // Of the second demo what the first has not: regions and bundles.
    for (const lens of site === 'observatory' ? LENSES : ['Group', 'Bundle']) {
      await page.getByRole('tab', { name: lens, exact: true }).click();
      const tables = page.getByRole('tablist', { name: 'Tables' }).getByRole('tab');
      const count = await tables.count();
      for (let i = 0; i < count; i += 1) {
        await tables.nth(i).click();
        await expect(page.getByRole('tabpanel')).not.toBeEmpty();
        expect(await violations(page, i === 0 ? null : '#drawer-table'), `${lens}, table ${i}`).toEqual([]);
      }
      await page
        .locator('[data-switch]')
        .first()
        .click({ position: { x: 5, y: 5 } });
      expect(await violations(page, 'aside'), `${lens}, a switch`).toEqual([]);
      await page.keyboard.press('Escape');
      await page.emulateMedia({ colorScheme: 'dark' });
      await expect(page.locator('html')).toHaveClass(/dark/);
      expect(await violations(page, null, ['color-contrast']), `${lens}, dark`).toEqual([]);
      await page.emulateMedia({ colorScheme: 'light' });
    }
  });
}

test('the list of designs, the dialogs and the legend are accessible', async ({ page }) => {
  await page.emulateMedia({ reducedMotion: 'reduce' });
  await page.goto('/');
  await page.getByRole('button', { name: 'New design' }).click();
  await page.evaluate(axe.source);
  expect(await violations(page)).toEqual([]);
  await openDemo(page);
  await page.evaluate(axe.source);
  await page.getByRole('button', { name: 'legend' }).click();
  await expect(page.getByRole('list', { name: 'Signs on the map' })).toContainText('knot');
  expect(await violations(page, 'main')).toEqual([]);
  for (const key of ['g', '?', 'Control+k']) {
    await page.keyboard.press(key);
    const dialog = page.getByRole('dialog');
    await expect(dialog).toBeVisible();
    expect(await violations(page, '[role="dialog"]'), key).toEqual([]);
    await page.keyboard.press('Escape');
    await expect(dialog).toHaveCount(0);
  }
});

/** Parts of the screen that lie over each other, and controls that reach out of the window. */
const burst = (page: Page) =>
  page.evaluate(() => {
    const rect = (of: Element) => of.getBoundingClientRect();
    const parts = ['header', 'nav', 'main', 'aside', 'section[aria-label="Table"]'].map((name) => ({
      name,
      at: rect(document.querySelector(name)!),
    }));
    const over = parts.flatMap((a, i) =>
      parts
        .slice(i + 1)
        .filter(
          (b) =>
            a.at.left < b.at.right - 1 &&
            b.at.left < a.at.right - 1 &&
            a.at.top < b.at.bottom - 1 &&
            b.at.top < a.at.bottom - 1,
        )
        .map((b) => `${a.name} over ${b.name}`),
    );
    const out = [...document.querySelectorAll('header button, header a, [role="tab"]')]
      .filter((each) => rect(each).right > innerWidth + 1 || rect(each).bottom > innerHeight + 1)
      .map((each) => `out of the window: ${each.textContent}`);
    const names = [...document.querySelectorAll('header h1, header button, header a')];
    const crossed = names.flatMap((a, i) =>
      names
        .slice(i + 1)
        .filter(
          (b) =>
            !a.contains(b) &&
            rect(a).left < rect(b).right - 1 &&
            rect(b).left < rect(a).right - 1 &&
            rect(a).top < rect(b).bottom - 1 &&
            rect(b).top < rect(a).bottom - 1,
        )
        .map((b) => `${a.textContent} over ${b.textContent}`),
    );
    return [...over, ...out, ...crossed];
  });

test('nothing bursts at 1024x700, or at 150 per cent of 1280x800', async ({ page }) => {
  await openDemo(page);
  for (const size of [
    { width: 1024, height: 700 },
    { width: 853, height: 533 },
  ]) {
    await page.setViewportSize(size);
    for (const lens of LENSES) {
      await page.getByRole('tab', { name: lens, exact: true }).click();
      expect(await burst(page), `${lens} at ${size.width}`).toEqual([]);
    }
  }
});
