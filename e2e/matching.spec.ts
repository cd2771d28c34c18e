import { expect, test, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { inspector, map, openDemo, saved, selectSwitch, setSetting, treeRow } from './design';

const neighbours = (page: Page) => page.getByRole('grid', { name: /^Neighbours/ });
const findings = (page: Page) => page.getByRole('list', { name: 'Findings' });
const history = (page: Page) => page.getByRole('grid', { name: 'History of revisions' });

async function toTab(page: Page, name: string | RegExp): Promise<void> {
  await page.getByRole('tab', { name: 'Cable', exact: true }).click();
  await page.getByRole('tab', { name }).click();
}

test('reported neighbours show the missing cable, which is taken over', async ({ page }) => {
  await openDemo(page);
  await toTab(page, 'Neighbours');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Export as CSV' }).click(),
  ]);
  const csv = readFileSync(await download.path(), 'utf8');
  expect(csv).toContain('lodge,3,workshop,3,02:4b:00:00:00:02,switch');

  // Unplug it in the drawing; the switches still report it.
  await page.getByRole('tab', { name: 'Cables' }).click();
  await page.getByRole('row', { name: /workshop port 3 lodge port 3/ }).click();
  await inspector(page).getByRole('button', { name: 'Unplug this cable' }).click();
  await page.getByRole('tab', { name: 'Neighbours' }).click();
  await page.getByRole('button', { name: 'Import reported neighbours' }).click();
  await page
    .getByLabel('Files of reported neighbours')
    .setInputFiles({ name: 'seen.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
  await expect(page.getByRole('list', { name: 'What was read' })).toContainText('40 neighbours from 8 switches');
  await page.getByRole('button', { name: 'Compare with the drawing' }).click();
  await page.getByLabel(/differences only/).check();
  await expect(neighbours(page).getByRole('row', { name: /missing cable/ })).toHaveCount(2);
  await neighbours(page)
    .getByRole('row', { name: /workshop 3 .*lodge port 3 missing cable/ })
    .getByRole('button', { name: 'draw it as seen' })
    .click();
  await expect(page.getByLabel(/0 differences only/)).toBeVisible();
  await expect(page.locator('[data-link]')).toHaveCount(15);
  await saved(page);
});

test('files that cannot be used say why and lose nothing', async ({ page }) => {
  await openDemo(page);
  await toTab(page, 'Neighbours');
  await page.getByRole('button', { name: 'Import reported neighbours' }).click();
  const files = page.getByLabel('Files of reported neighbours');
  const read = page.getByRole('list', { name: 'What was read' });
  await files.setInputFiles([
    { name: 'short.csv', mimeType: 'text/csv', buffer: Buffer.from('switch,neighbour\nridge-a,ridge-b\n') },
    {
      name: 'ridge-b.json',
      mimeType: 'application/json',
      buffer: Buffer.from(
        JSON.stringify({
          lldp: {
            interface: {
              'port-1': {
                chassis: { 'ridge-a': { id: { type: 'mac', value: '02:4b:00:00:00:0a' } } },
                port: { id: { type: 'ifname', value: '1' } },
              },
            },
          },
        }),
      ),
    },
    {
      name: 'latin.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from('switch;port;neighbour\nlodge;1;H\xfctte\n', 'latin1'),
    },
    { name: 'huge.csv', mimeType: 'text/csv', buffer: Buffer.alloc(17 * 1024 * 1024, 65) },
  ]);
  await expect(read).toContainText('The column "port" is missing. The heading has "switch", "neighbour".');
  await expect(read).toContainText('huge.csv: The file holds 17 MiB; 16 MiB is the limit.');
  await expect(read.getByLabel('Switch on which ridge-b.json was printed')).toHaveValue('ridge-b');
  await expect(page.getByRole('button', { name: 'Compare with the drawing' })).toBeDisabled();
  await expect(page.locator('[data-save="saved"]')).toContainText('revision 0');
});

test('findings lead to their place and are ended by a click', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('tab', { name: 'Cable', exact: true }).click();
  const line = page.getByLabel('Quick-cabling line');
  await line.fill('port lodge 2 100M\nport ridge-a 1 trunk 1,15 native 15\nswitch workshop short-cost');
  await line.press('Enter');
  await page.getByRole('tab', { name: /Findings/ }).click();
  const speed = findings(page).getByRole('listitem').filter({ hasText: 'the ends are set to' });
  await expect(speed).toContainText('The link may not come up');
  await speed.getByRole('button', { name: 'go there' }).click();
  await expect(inspector(page).getByRole('heading', { level: 2 })).toHaveText('Link');
  await speed.getByRole('button', { name: 'set both ends to 1000 Mb/s' }).click();
  await expect(speed).toHaveCount(0);
  await findings(page).getByRole('button', { name: 'use the long method everywhere' }).click();
  await expect(findings(page)).not.toContainText('path costs by the short method');
  await findings(page).getByRole('button', { name: 'native VLAN 1 on ridge-a port 1' }).click();
  await findings(page)
    .getByRole('button', { name: /carry VLAN .* at both ends/ })
    .click();
  await expect(findings(page).getByRole('listitem')).toHaveCount(7); // the roots that nobody chose, the lodge's bundle, the ridge links, open edges, a converter
});

test('VLANs are listed with what uses them, added as ranges, deleted knowingly', async ({ page }) => {
  await openDemo(page);
  await toTab(page, 'VLANs');
  const ids = page.getByLabel('VLAN IDs to add or delete');
  for (const [wrong, says] of [
    ['5-3', 'runs backwards'],
    ['0', 'VLAN 0'],
    ['4095', 'VLAN 4095'],
  ] as const) {
    await ids.fill(wrong);
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await expect(page.locator('#drawer-table').getByRole('alert')).toContainText(says);
    await expect(ids).toHaveValue(wrong);
  }
  await ids.fill('70-72');
  await page.getByLabel('Name of the new VLANs').fill('<b>Domes</b>');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(treeRow(page, 'vlan:71')).toContainText('<b>Domes</b>');
  await page.getByRole('gridcell', { name: '<b>Domes</b>' }).first().dblclick();
  await page.keyboard.type(' 1');
  await page.keyboard.press('Enter');
  await expect(treeRow(page, 'vlan:70')).toContainText('Domes');
  await page.getByRole('button', { name: 'delete VLAN 45' }).click();
  await expect(page.getByRole('alertdialog')).toContainText(
    'VLAN 45: 2 hosts (Duty desk, Office desk), 4 access ports',
  );
  await page.getByRole('button', { name: 'Keep' }).click();
  await ids.fill('70-99');
  await page.getByRole('button', { name: 'Delete', exact: true }).click();
  await page.getByRole('alertdialog').getByRole('button', { name: 'Delete' }).click();
  await expect(treeRow(page, 'vlan:71')).toHaveCount(0);
  await saved(page);
});

test('history: look back, compare, name a baseline, restore', async ({ page }) => {
  await openDemo(page);
  await selectSwitch(page, 'ridge-a');
  await setSetting(page, 'VLAN 15', '4096');
  await expect(treeRow(page, 'vlan:15')).toContainText('root ridge-a');
  await saved(page);
  await page.getByRole('tab', { name: 'History' }).click();
  await expect(
    history(page).getByRole('row', { name: /1 .*priority of ridge-a in VLAN 15: 32768 to 4096/ }),
  ).toBeVisible();

  await page.getByRole('button', { name: 'name revision 0 as a baseline' }).click();
  await page.getByLabel(/Name of revision 0/).fill('As found');
  await page.getByRole('button', { name: 'Keep' }).click();
  await expect(history(page).getByRole('gridcell', { name: 'As found' })).toBeVisible();

  // An earlier revision is on the map, and cannot be changed.
  await page.getByRole('button', { name: 'look at revision 0' }).click();
  await expect(treeRow(page, 'vlan:15')).toContainText('root lodge');
  await expect(map(page)).toContainText('Looking at revision 0, As found');
  await expect(inspector(page).getByLabel('VLAN 15', { exact: true })).toBeDisabled();
  await expect(inspector(page)).toContainText('To look at only');
  await map(page).getByRole('button', { name: 'go back to now' }).click();
  await expect(treeRow(page, 'vlan:15')).toContainText('root ridge-a');

  // Side by side: settings, ends, and the map.
  await page.getByRole('button', { name: 'compare revision 0 with now' }).click();
  await expect(
    page
      .getByRole('grid', { name: 'Settings that differ' })
      .getByRole('row', { name: /ridge-a priority in VLAN 15 as for all trees 4096/ }),
  ).toBeVisible();
  await expect(map(page).getByText('A→R', { exact: true })).toHaveCount(1);
  await page.getByRole('button', { name: '10 ports' }).click();
  await expect(page.getByRole('grid', { name: 'Ports whose role differs' }).getByRole('row')).toHaveCount(11);
  await page.getByRole('button', { name: 'Done comparing' }).click();

  // Restored as a revision of its own, which can be taken back.
  await page.getByRole('button', { name: 'restore revision 0' }).click();
  await expect(treeRow(page, 'vlan:15')).toContainText('root lodge');
  await saved(page);
  await expect(history(page).getByRole('row', { name: /2 .*restored revision 0/ })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(treeRow(page, 'vlan:15')).toContainText('root ridge-a');
  await saved(page);
  await page.reload();
  await expect(treeRow(page, 'vlan:15')).toContainText('root ridge-a');
});
