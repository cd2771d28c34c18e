/** Two pages on one design, files out and in, and the command line beside the screen. */
import { expect, test, type BrowserContext, type Page } from '@playwright/test';
import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { inspector, portTable, openDemo, saved, selectSwitch, setSetting, settled, treeRow } from './design';

/** A second page on the demo that `page` has open; both set the same field, and the other's edit reaches the server last. */
async function pageBehind(page: Page, context: BrowserContext): Promise<Page> {
  await openDemo(page);
  const other = await context.newPage();
  await other.goto(page.url());
  await settled(other);
  await other.route('**/revisions', async (route) => {
    await saved(page);
    await expect(page.getByRole('banner')).toContainText('revision 1, saved');
    await route.continue();
  });
  await selectSwitch(other, 'ridge-a');
  await setSetting(other, 'VLAN 15', '0');
  await selectSwitch(page, 'ridge-a');
  await setSetting(page, 'VLAN 15', '4096');
  return other;
}

test('a page that is behind is told so, overwrites nothing, and can keep its change as a new design', async ({
  page,
  context,
}) => {
  const other = await pageBehind(page, context);
  const conflict = other.getByRole('dialog', { name: 'Changed elsewhere in the meantime' });
  await expect(conflict).toContainText('This design is at revision 1 by now; your change was made on revision 0.');
  await expect(conflict).toContainText('priority of ridge-a in VLAN 15: 32768 to 4096');
  await expect(conflict).toContainText('1 change of yours is not saved');

  await conflict.getByRole('button', { name: 'Keep mine as a new design' }).click();
  await other.waitForURL((url) => url.href !== page.url());
  await settled(other);
  await expect(other.getByRole('banner')).toContainText('Fernhollow Observatory (my changes)');
  await selectSwitch(other, 'ridge-a');
  await expect(inspector(other).getByLabel('VLAN 15', { exact: true })).toHaveValue('0');

  await page.reload();
  await settled(page);
  await selectSwitch(page, 'ridge-a');
  await expect(inspector(page).getByLabel('VLAN 15', { exact: true })).toHaveValue('4096');
});

test('a page that is behind can open the saved revision instead', async ({ page, context }) => {
  const other = await pageBehind(page, context);
  await other.getByRole('button', { name: 'Open the saved revision, drop mine' }).click();
  await settled(other);
  await expect(other.getByRole('dialog')).toHaveCount(0);
  await selectSwitch(other, 'ridge-a');
  await expect(inspector(other).getByLabel('VLAN 15', { exact: true })).toHaveValue('4096');
});

test('the command line says of the exported file what the screen says', async ({ page }) => {
  test.slow();
  await openDemo(page);
  await selectSwitch(page, 'dome-east');
  await setSetting(page, 'VLAN 15', '8192');
  await expect(treeRow(page, 'vlan:15')).toContainText('root dome-east');
  await saved(page);

  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export' }).click();
  const file = await (await download).path();
  expect((await download).suggestedFilename()).toBe('fernhollow-observatory.knot.json');
  expect(readFileSync(file, 'utf8')).toContain('"priority": 8192');

  const { stdout, status } = spawnSync('npx', ['knot-path', 'solve', file, '--tree', 'vlan:15', '--json'], {
    encoding: 'utf8',
  });
  expect(status).toBe(0);
  const { trees } = JSON.parse(stdout) as {
    trees: { switches: Record<string, { ports: Record<string, { role: string; state: string; cost: number }> }> }[];
  };
  const told = Object.entries(trees[0]!.switches).flatMap(([sw, { ports }]) =>
    Object.entries(ports).map(([port, view]) => ({ sw, port, ...view })),
  );
  await expect(page.getByText(`${told.length} ports`, { exact: true })).toBeVisible();
  for (const { sw, port, role, state, cost } of told) {
    await page.getByLabel('Filter ports').fill(`${sw} ${port} ${role} ${cost}`);
    const grouped = String(cost).replace(/\B(?=(\d{3})+$)/g, '\\s'); // accessible names have plain spaces
    await expect(
      portTable(page).getByRole('row', {
        name: new RegExp(`VLAN 15 ${sw} ${port} (.* )?${role} ${state} ${grouped} `),
      }),
    ).toBeVisible();
  }
});

test('a file comes in as a new design, and a broken one says where it is broken', async ({ page }) => {
  await page.goto('/');
  const choose = async (name: string, text: string) => {
    await page
      .getByLabel('Design file')
      .setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(text) });
  };
  const ring = (more: object) =>
    JSON.stringify({
      format: 'knot-path-design',
      version: 1,
      name: '<b>Ring</b> of two',
      switches: ['a', 'b'].map((id, i) => ({
        id,
        mac: `02:00:00:00:00:0${i + 1}`,
        ports: [1, 2].map((n) => ({ id: String(n), number: n, ...more })),
      })),
      links: [1, 2].map((n) => ({
        id: `l${n}`,
        a: { switch: 'a', port: String(n) },
        b: { switch: 'b', port: String(n) },
      })),
    });
  await choose('broken.knot.json', ring({ priority: 100 }));
  await expect(page.getByRole('main').getByRole('alert')).toContainText('“broken.knot.json” was not imported');
  await expect(page.getByRole('main').getByRole('alert')).toContainText(
    'switches[0].ports[0].priority: found 100; allowed: 0 to 240 in steps of 16; nearest: 96 and 112',
  );
  await choose('notes.txt', 'not a design');
  await expect(page.getByRole('main').getByRole('alert')).toContainText('text that is not JSON');

  await choose('ring.knot.json', ring({}));
  await page.waitForURL(/\/designs\//);
  await settled(page);
  await expect(page.getByRole('banner')).toContainText('<b>Ring</b> of two');
  await expect(page.getByRole('navigation', { name: 'Trees' })).toContainText('Common tree');
  await expect(portTable(page).getByRole('row', { name: /b 2 a port 2 alternate discarding/ })).toBeVisible();
  await expect(inspector(page)).toContainText('2 switches, 2 links');
});
