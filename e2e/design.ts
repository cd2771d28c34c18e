/** What the end-to-end tests share: a fresh copy of the demo, and the parts of the screen by the names a person would use. */
import { expect, type Page } from '@playwright/test';
import type { DemoSite } from '../src/core/demo/sites';
import { observeRun } from '../src/core/exchange/observation/ofRun';
import type { Design } from '../src/core/model/document';
import { SECOND } from '../src/core/modes/entity';
import { Simulation } from '../src/core/sim/engine/simulation';
import { compileNetwork } from '../src/core/topology/network';
import { treesOf } from '../src/core/topology/trees';

/** Adds a fresh demo and opens it; the story does the same through the list of designs. */
export async function openDemo(page: Page, site: DemoSite = 'observatory'): Promise<void> {
  const added = await page.request.post('/api/designs', { data: { do: 'demo', site } });
  const { id } = (await added.json()) as { id: string };
  await page.goto(`/designs/${id}`);
  await settled(page);
}

/** How long a page may take to load on a machine that does other things as well. */
const LOADED_MS = 25_000;

/** Waits until trees are solved and drawn. */
export async function settled(page: Page): Promise<void> {
  await expect(
    page
      .getByRole('navigation', { name: 'Trees' })
      .getByText(/^root /)
      .first(),
  ).toBeVisible({ timeout: LOADED_MS });
  await expect(page.locator('[data-switch], [data-group]').first()).toBeVisible({ timeout: LOADED_MS });
}

export const map = (page: Page) => page.getByRole('main', { name: 'Map' });
export const inspector = (page: Page) => page.getByRole('complementary', { name: 'Inspector' });
export const portTable = (page: Page) => page.getByRole('grid', { name: /^Ports: role/ });
export const saved = (page: Page) => expect(page.locator('[data-save="saved"]')).toBeVisible();
export const treeRow = (page: Page, id: string) => page.locator(`[data-tree="${id}"]`);

/** Selects a switch on the map by its name. */
export const selectSwitch = (page: Page, name: string) => page.locator(`[data-switch="${name}"]`).click();

/** Clicks a link where it is its own: not in the middle, where others may cross it. */
export async function selectLink(page: Page, link: string): Promise<void> {
  const path = page.locator(`[data-link="${link}"] path[pointer-events="stroke"]`);
  const at = await path.evaluate((way: SVGPathElement) => {
    const point = way.getPointAtLength(way.getTotalLength() * 0.3).matrixTransform(way.getScreenCTM()!);
    return { x: point.x, y: point.y };
  });
  await page.mouse.click(at.x, at.y);
}

/** The end of a link at a port, by the name that its tooltip gives. */
export const portEnd = (page: Page, name: string) =>
  map(page)
    .locator('[data-side]')
    .filter({ has: page.locator('title', { hasText: new RegExp(`^${name}(:|;|$)`) }) });

/** Types into a setting of the inspector and takes it with Enter. */
export async function setSetting(page: Page, label: string, value: string): Promise<void> {
  const field = inspector(page).getByLabel(label, { exact: true });
  await field.fill(value);
  await field.press('Enter');
}

/** Creates an empty design through the list of designs and opens it. */
export async function createDesign(page: Page, name: string): Promise<void> {
  await page.goto('/');
  await page.getByRole('button', { name: 'New design' }).click();
  await page.getByLabel('Name of the new design').fill(name);
  await page.getByRole('button', { name: 'Create' }).click();
  await page.waitForURL(/\/designs\//);
  await expect(page.getByRole('main', { name: 'Map' })).toBeVisible();
}

/** Pulls the frayed end of one link to the end of another, and holds it there. */
export async function pullFray(page: Page, from: string, to: string): Promise<void> {
  const middleOf = async (place: string) => {
    const { x, y, width, height } = (await page.locator(place).boundingBox())!;
    return [x + width / 2, y + height / 2] as const;
  };
  await page.mouse.move(...(await middleOf(`[data-link="${from}"] [data-frayed]`)));
  await page.mouse.down();
  await page.mouse.move(...(await middleOf(`[data-link="${to}"] [data-side="b"]`)), { steps: 6 });
}

/** What the switches of a design tell once they have settled, as the file that is read. */
export function observationOf(design: Design): string {
  const simulation = new Simulation(compileNetwork(design), treesOf(design));
  simulation.boot();
  simulation.runTo(120 * SECOND);
  const switches = observeRun(simulation, design);
  return JSON.stringify({
    format: 'knot-path-observation',
    version: 1,
    at: '2026-11-30T10:00:00Z',
    switches,
    leftOut: [],
  });
}
