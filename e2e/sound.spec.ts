/** Two windows, a server that goes away, a page that dies: nothing is lost and nothing is done twice. */
import Database from 'better-sqlite3';
import { expect, test, type Page } from '@playwright/test';
import { inspector, openDemo, saved, selectSwitch, setSetting, settled, treeRow } from './design';

const banner = (page: Page) => page.getByRole('banner');
const notices = (page: Page) => page.getByRole('main', { name: 'Map' });
/** Sets the selected switch's priority in the tree of a VLAN. */
async function inTree(page: Page, vid: number, value: string): Promise<void> {
  await treeRow(page, `vlan:${vid}`).getByRole('button').first().click();
  await setSetting(page, `VLAN ${vid}`, value);
}
const idOf = (page: Page): string => page.url().split('/').at(-1)!;

test('two windows change different things and both live; each shows where the other looks', async ({
  page,
  context,
}) => {
  await openDemo(page);
  const other = await context.newPage();
  await other.goto(page.url());
  await settled(other);
  await selectSwitch(other, 'lodge');
  await expect(banner(page).getByRole('button', { name: '1 other window' })).toBeVisible();
  await banner(page).getByRole('button', { name: '1 other window' }).click();
  await expect(page.getByRole('list', { name: 'Other windows' })).toContainText(/Window [AB]: Root, switch lodge/);
  await page.keyboard.press('Escape');
  // What one does the other shows, its trees with it.
  await selectSwitch(page, 'ridge-a');
  await inTree(page, 15, '4096');
  await expect(treeRow(other, 'vlan:15')).toContainText('root ridge-a');
  await expect(banner(other)).toContainText('revision 1, saved');
  // Both at once: the second is held back until the first is there.
  await other.route('**/revisions', async (route) => {
    await expect(banner(page)).toContainText('revision 2, saved');
    await route.continue();
  });
  await inTree(other, 25, '8192');
  await inTree(page, 25, '0');
  await expect(banner(other)).toContainText('revision 3, saved');
  await expect(banner(page)).toContainText('revision 3, saved');
  await expect(treeRow(other, 'vlan:25')).toContainText('root ridge-a');
  await expect(inspector(other).getByLabel('VLAN 25', { exact: true })).toHaveValue('8192');
  // The same field at once: that one is asked about.
  await other.unroute('**/revisions');
  await other.route('**/revisions', async (route) => {
    await expect(banner(page)).toContainText('revision 4, saved');
    await route.continue();
  });
  await selectSwitch(page, 'lodge');
  await inTree(other, 35, '4096');
  await inTree(page, 35, '12288');
  await expect(other.getByRole('dialog')).toContainText('Changed elsewhere in the meantime');
  await expect(other.getByRole('dialog')).toContainText('32768 to 12288');
});

test('an answer that is lost after the commit is no conflict with oneself', async ({ page }) => {
  await openDemo(page);
  let lost = 0;
  await page.route('**/revisions', async (route) => {
    if (lost > 0) return route.continue();
    lost += 1;
    await route.fetch();
    await route.abort();
  });
  await selectSwitch(page, 'ridge-a');
  await inTree(page, 15, '4096');
  await expect.poll(() => lost).toBe(1);
  await saved(page);
  await inTree(page, 25, '4096');
  await expect(banner(page)).toContainText('revision 2, saved');
  await expect(page.getByRole('dialog')).toHaveCount(0);
});

test('changes that a dead page had not sent are offered again, and made once', async ({ page, context }) => {
  await openDemo(page);
  await context.route('**/revisions', (route) => route.abort());
  await selectSwitch(page, 'ridge-a');
  await inTree(page, 15, '4096');
  await inTree(page, 25, '8192');
  await expect(banner(page)).toContainText('not saved');
  const url = page.url();
  await page.close(); // without being asked, as in a crash
  await context.unroute('**/revisions');
  const again = await context.newPage();
  await again.goto(url);
  await settled(again);
  await expect(banner(again)).toContainText('revision 0');
  await expect(notices(again)).toContainText(
    /2 changes from .* never reached the server: priority of ridge-a in VLAN 15: 32768 to 4096; priority of ridge-a in VLAN 25/,
  );
  await notices(again).getByRole('button', { name: 'make them now' }).click();
  await expect(banner(again)).toContainText('revision 2, saved');
  await expect(treeRow(again, 'vlan:15')).toContainText('root ridge-a');
  await expect(again.getByText('never reached the server')).toHaveCount(0);
  await again.reload();
  await settled(again);
  await expect(banner(again)).toContainText('revision 2');
  await expect(again.getByText('never reached the server')).toHaveCount(0);
});

test('a lens that cannot be loaded says so, takes nothing down, and comes when the server is back', async ({
  page,
  context,
}) => {
  await openDemo(page);
  await expect(page.getByRole('tab', { name: /^Findings \d/ })).toBeVisible();
  await context.route(/_next\/static/, (route) => route.abort());
  await page.getByRole('tab', { name: 'Break', exact: true }).click();
  await expect(page.getByText('This table cannot be loaded: the server does not answer. Trying again.')).toBeVisible();
  await expect(page.locator('[data-switch="lodge"]')).toBeVisible();
  await context.unroute(/_next\/static/);
  await page.getByLabel('Scenario').first().selectOption({ index: 1 });
  await expect(page.getByRole('slider').first()).toBeVisible();
  await expect(page.getByText('cannot be loaded')).toHaveCount(0);
});

test('text that was typed and not taken is asked about when the page goes', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('tab', { name: 'Cable', exact: true }).click();
  await page.getByLabel('Quick-cabling line').fill('new-1 1 = lodge 8');
  let asked = 0;
  page.on('dialog', (dialog) => {
    asked += 1;
    void dialog.accept();
  });
  await page.goto('/');
  expect(asked).toBe(1);
  await openDemo(page);
  await selectSwitch(page, 'ridge-a');
  await page.goto('/');
  expect(asked).toBe(1); // nothing was typed
  await openDemo(page);
  await selectSwitch(page, 'ridge-a');
  await inspector(page).getByLabel('VLAN 15', { exact: true }).fill('4096');
  await page.goto('/');
  expect(asked).toBe(2);
});

test('a design whose newest revisions cannot be read opens at the last good one, and goes on from there', async ({
  page,
  request,
}) => {
  await openDemo(page);
  const id = idOf(page);
  for (const [base, priority] of [4096, 8192, 0].entries()) {
    expect(
      (
        await request.post(`/api/designs/${id}/revisions`, {
          data: {
            kind: 'edit',
            base,
            commands: [{ do: 'set-bridge-priority', switch: 'ridge-a', tree: 'vlan:15', priority }],
          },
        })
      ).status(),
    ).toBe(201);
  }
  await page.goto('/'); // nobody holds it
  const db = new Database(process.env.KNOT_PATH_TEST_DB!);
  db.prepare(
    `update revisions set patches = '[{"op":"replace","path":["switches",0,"trees","nonsense"],"value":{"priority":7}}]' where design = ? and number >= 2`,
  ).run(id);
  db.close();
  // The server knows the newest document by heart until others were opened after it; a restore of another makes no difference to it.
  for (let n = 0; n < 17; n += 1) {
    const made = (await (
      await request.post('/api/designs', { data: { do: 'create', name: `other ${n}` } })
    ).json()) as { id: string };
    await request.get(`/api/designs/${made.id}`);
  }
  await page.goto(`/designs/${id}`);
  await settled(page);
  await expect(notices(page)).toContainText(
    'Revisions 2 to 3 of this design cannot be read; this is revision 1, the last good one.',
  );
  await expect(treeRow(page, 'vlan:15')).toContainText('root ridge-a');
  const exported = await request.get(`/api/designs/${id}/export`);
  expect(exported.status()).toBe(200);
  expect(
    (await request.post('/api/designs', { data: { do: 'import', document: await exported.json() } })).status(),
  ).toBe(201);
  await notices(page).getByRole('button', { name: 'go on from revision 1' }).click();
  await expect(page.getByText('cannot be read')).toHaveCount(0);
  await expect(banner(page)).toContainText('revision 4, saved');
  await selectSwitch(page, 'ridge-a');
  await inTree(page, 15, '12288');
  await expect(banner(page)).toContainText('revision 5, saved');
});
