/** What must hold when things go wrong, or grow large. */
import { expect, test } from '@playwright/test';
import { inspector, map, openDemo, saved, selectSwitch, setSetting, settled, treeRow } from './design';

test('a server that does not answer loses nothing: the change is kept and sent when it is back', async ({ page }) => {
  await openDemo(page);
  await page.route('**/revisions', (route) => route.abort());
  await selectSwitch(page, 'ridge-a');
  await setSetting(page, 'VLAN 15', '4096');
  await expect(treeRow(page, 'vlan:15')).toContainText('root ridge-a');
  await expect(page.getByRole('banner')).toContainText('not saved: no answer, trying again');
  await setSetting(page, 'VLAN 15', '8192');
  await page.unroute('**/revisions');
  await saved(page);
  await page.reload();
  await settled(page);
  await expect(page.getByRole('banner')).toContainText('revision 2');
  await selectSwitch(page, 'ridge-a');
  await expect(inspector(page).getByLabel('VLAN 15', { exact: true })).toHaveValue('8192');
});

test('nothing on the screen breaks the content security policy or the console, light or dark', async ({ page }) => {
  const complaints: string[] = [];
  page.on('console', (message) => ['error', 'warning'].includes(message.type()) && complaints.push(message.text()));
  page.on('pageerror', (error) => complaints.push(error.message));
  await openDemo(page);
  for (const name of ['Cable', 'Root']) await page.getByRole('tab', { name, exact: true }).click();
  for (const name of [/Changed ports/, /Findings/, /^Ports$/]) await page.getByRole('tab', { name }).click();
  await selectSwitch(page, 'lodge');
  await page.getByRole('button', { name: 'Dark' }).click();
  await expect(page.locator('html')).toHaveClass(/dark/);
  await page.getByRole('button', { name: 'Light' }).click();
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Designs' })).toBeVisible();
  expect(complaints).toEqual([]);
});

test('a large design is drawn from afar without letters and from near with them', async ({ page, request }) => {
  const columns = 12;
  const count = 96;
  const port = (s: number, n: number) => ({ switch: `s${s}`, port: String(n) });
  const document = {
    format: 'knot-path-design',
    version: 1,
    name: 'x'.repeat(10_000),
    switches: Array.from({ length: count }, (_, s) => ({
      id: `s${s}`,
      name: s === 0 ? 'y'.repeat(10_000) : `switch ${s}`,
      mac: `02:00:00:00:00:${(s + 1).toString(16).padStart(2, '0')}`,
      position: { x: (s % columns) * 240, y: Math.floor(s / columns) * 200 },
      ports: [1, 2, 3, 4].map((n) => ({ id: String(n), number: n })),
    })),
    links: Array.from({ length: count }, (_, s) => s).flatMap((s) => [
      { id: `r${s}`, a: port(s, 1), b: port((s + 1) % count, 2) },
      ...(s + columns < count && s % 2 === 0 ? [{ id: `c${s}`, a: port(s, 3), b: port(s + columns, 4) }] : []),
    ]),
  };
  const made = (await (await request.post('/api/designs', { data: { do: 'import', document } })).json()) as {
    id: string;
  };
  await page.goto(`/designs/${made.id}`);
  await settled(page);
  await expect(page.locator('[data-end]')).toHaveCount(0);
  await expect(page.locator('[data-switch]')).toHaveCount(count);
  for (let i = 0; i < 7; i += 1) await map(page).getByRole('button', { name: 'zoom in' }).click();
  await expect(page.locator('[data-end="root"]').first()).toBeVisible();
  await map(page).getByRole('button', { name: 'whole map' }).click();
  await expect(page.locator('[data-end]')).toHaveCount(0);
  // The endless names push nothing out of its place.
  const frame = (await page.getByRole('banner').boundingBox())!;
  expect(frame.width).toBe(1280);
  await expect(page.getByRole('button', { name: 'Dark' })).toBeInViewport();
});
