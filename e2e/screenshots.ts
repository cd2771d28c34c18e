/** Draws the pictures in docs/screenshots from the demo: `npm run screenshots`. */
import { copyFileSync } from 'node:fs';
import { test, type Page } from '@playwright/test';
import { campusOf } from '../src/core/testing/campus';
import { leanDesign } from '../src/core/model/derive/write';
import { fernhollow } from '../src/core/demo/demos';
import { observationOf, openDemo, pullFray, selectLink, selectSwitch, setSetting, settled, treeRow } from './design';

const picture = async (page: Page, name: string) => {
  await page.waitForTimeout(700); // the tables follow the map
  await page.screenshot({ path: `docs/screenshots/${name}.png`, animations: 'disabled' });
};

test('pictures', async ({ page }) => {
  test.setTimeout(180_000);
  await page.goto('/');
  await picture(page, 'designs');

  await openDemo(page);
  await page.getByLabel('Filter ports').fill('alternate');
  await page.getByRole('button', { name: 'ridge-b port 1', exact: true }).click();
  await picture(page, 'why-and-ports');
  await page.getByLabel('Filter ports').fill('');

  await page.getByLabel('draw VLAN 25 with the others').check();
  await selectSwitch(page, 'ridge-b');
  await setSetting(page, 'VLAN 25', '4096');
  await selectSwitch(page, 'ridge-a');
  await setSetting(page, 'VLAN 15', '4096');
  await treeRow(page, 'vlan:15').getByText('root ridge-a').waitFor();
  await page.getByRole('tab', { name: /Changed ports/ }).click();
  await page.getByRole('tab', { name: 'History' }).click();
  await page.getByRole('button', { name: 'name revision 0 as a baseline' }).click();
  await page.getByLabel(/Name of revision 0/).fill('As found');
  await page.getByRole('button', { name: 'Keep' }).click();
  await page.getByRole('button', { name: 'compare revision 0 with now' }).click();
  await picture(page, 'comparing');
  await page.getByRole('button', { name: 'Done comparing' }).click();
  await page.getByLabel('draw VLAN 25 with the others').uncheck();
  await page.getByRole('tab', { name: 'Roots', exact: true }).click();
  await selectSwitch(page, 'ridge-b');
  await page.keyboard.press('s');
  await picture(page, 'roots');
  await page.getByRole('tab', { name: 'If a root dies' }).click();
  await page
    .getByRole('grid', { name: 'If a root dies' })
    .getByRole('row', { name: /ridge-a VLAN 15/ })
    .click();
  await page.locator('#drawer-table').getByRole('button', { name: 'go back to now' }).click();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await page.getByRole('tab', { name: 'Ports', exact: true }).click();
  await page.getByRole('button', { name: 'as placed' }).click();

  await page.getByRole('tab', { name: 'Steer' }).click();
  await pullFray(page, 'l6', 'l5');
  await page.mouse.up();
  await page.getByRole('list', { name: 'Proposals' }).waitFor();
  await page.getByRole('button', { name: 'show proposal 1 on the map' }).click();
  await picture(page, 'steer');
  await page.getByRole('button', { name: 'go back to now' }).first().click();
  await page.keyboard.press('Escape');

  await page.getByRole('button', { name: 'clear all' }).click();
  await page.keyboard.press('Escape');
  await page.getByRole('tab', { name: 'Load sharing' }).click();
  await page.getByRole('button', { name: 'Propose ways to share' }).click();
  await page.getByRole('list', { name: 'Proposals' }).waitFor();
  await page.getByRole('button', { name: 'show proposal 1 on the map' }).click();
  await picture(page, 'sharing');
  await page.getByRole('button', { name: 'go back to now' }).first().click();

  await page.getByRole('tab', { name: 'Cable', exact: true }).click();
  await picture(page, 'cable');
  // Bundle: a demo as shipped.
  await openDemo(page);
  await page.getByRole('tab', { name: 'Bundle', exact: true }).click();
  await page.getByRole('row', { name: /not bundled/ }).click();
  await page.getByRole('button', { name: 'Bundle these' }).click();
  await page.getByRole('tab', { name: 'Flows' }).click();
  await page.getByRole('combobox', { name: 'Flows' }).selectOption('100');
  await page.locator('#drawer-table').getByLabel('Hash').selectOption('3+4');
  await page.getByLabel('Lost member').selectOption('2');
  await page.getByRole('button', { name: 'whole map' }).click();
  await picture(page, 'bundle');

  // Guard: guards that stand by, a stranger tried everywhere; and a shut port that counts down.
  await openDemo(page);
  await page.getByRole('tab', { name: 'Guard', exact: true }).click();
  await page.getByRole('tab', { name: 'By rule' }).click();
  await page
    .getByRole('listitem')
    .filter({ hasText: 'Loop guard on every way' })
    .getByRole('button', { name: /^take it/ })
    .click();
  await page.getByRole('tab', { name: 'If a stranger comes' }).click();
  await selectSwitch(page, 'lodge');
  await page
    .getByRole('row', { name: /workshop/ })
    .first()
    .waitFor();
  await picture(page, 'guard');

  // Group: the valley station as shipped, and a grouping proposed for the observatory.
  await page.goto('/');
  await page.getByRole('button', { name: 'Add the valley demo' }).click();
  await page.waitForURL(/\/designs\//);
  await page.getByRole('tab', { name: 'Group', exact: true }).click();
  await page.getByRole('tab', { name: 'Regions' }).click();
  await selectSwitch(page, 'gatehouse');
  await openDemo(page);
  await page.getByRole('tab', { name: 'Group', exact: true }).click();
  await page.getByRole('button', { name: 'Propose from loads and topology' }).click();
  await page.getByRole('button', { name: 'take it, proposal 1' }).click();
  await page.getByLabel('draw instance 1 with the others').check();
  await page.getByLabel('draw instance 2 with the others').check();
  await page.getByLabel('draw CIST with the others').uncheck();
  await page.getByRole('button', { name: 'close this message' }).click();
  await picture(page, 'group');

  // Break: a demo as shipped.
  await openDemo(page);
  await page.getByRole('tab', { name: 'Break' }).click();
  await page.getByLabel('Scenario').first().selectOption({ label: "The root's link to ridge-a is cut" });
  await page.getByRole('slider', { name: 'Time' }).waitFor();
  await page.keyboard.press('.');
  await page.keyboard.press('.');
  await page.getByRole('button', { name: 'dome-north port 2', exact: true }).click();
  await picture(page, 'break');
  await page.getByRole('tab', { name: 'Frame paths' }).click();
  await page.getByLabel('From host').selectOption('camera-recorder');
  await page.getByLabel('To host').selectOption('image-store');
  await page.getByRole('tab', { name: 'Frames', exact: true }).click();
  await selectLink(page, 'l4');
  await page
    .getByRole('grid', { name: 'Frames' })
    .getByRole('gridcell', { name: /agreement/ })
    .first()
    .click();
  await picture(page, 'frames');
});

test('a picture of the design held against its network', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('tab', { name: 'Observe', exact: true }).click();
  await page
    .getByLabel('Observation', { exact: true })
    .setInputFiles({ name: 'observed.json', mimeType: '', buffer: Buffer.from(observationOf(fernhollow())) });
  await selectSwitch(page, 'ridge-a');
  await setSetting(page, 'All trees', '4096');
  await page.getByText(/compared: \d+ differences/).waitFor();
  await picture(page, 'observe');
});

test('a picture of a watch: what goes wrong meanwhile, and the instant of it on the map', async ({ page }) => {
  test.setTimeout(150_000);
  await openDemo(page);
  await page.getByRole('tab', { name: 'Observe', exact: true }).click();
  await page.getByRole('tab', { name: 'Watch', exact: true }).click();
  await page.getByRole('button', { name: 'watch a demo, with no hardware' }).click();
  await page
    .getByRole('button', { name: /has signal again/ })
    .first()
    .waitFor({ timeout: 60_000 });
  await page.waitForTimeout(30_000); // it goes on
  await page.getByRole('button', { name: 'stop watching' }).click();
  await page.getByRole('button', { name: 'To the start' }).click();
  await page.getByRole('button', { name: 'Next change' }).click();
  await page.getByRole('button', { name: 'seen', exact: true }).first().click();
  await picture(page, 'watch');
});

test('a picture of what is handed over, dark', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('tab', { name: 'Hand over', exact: true }).click();
  await page.locator('[data-switch="ridge-b"]').click();
  await page.getByLabel('Form', { exact: true }).selectOption('linux');
  await page.getByRole('button', { name: 'Dark' }).click();
  await picture(page, 'hand-over');
});

test('a picture of a report, as it is printed', async ({ page }) => {
  await openDemo(page);
  await selectSwitch(page, 'ridge-a');
  await setSetting(page, 'All trees', '4096');
  await page.locator('[data-save="saved"]').waitFor();
  await page.getByRole('tab', { name: 'Hand over', exact: true }).click();
  await page.getByRole('tab', { name: 'Report', exact: true }).click();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Write the report' }).click(),
  ]);
  const kept = `${await file.path()}.html`;
  copyFileSync(await file.path(), kept);
  await page.goto(`file://${kept}`);
  await page.locator('#roots').evaluate((section) => section.scrollIntoView());
  await picture(page, 'report');
});

test('a picture of several makers', async ({ page }) => {
  await openDemo(page, 'town');
  await page.getByRole('tab', { name: 'Conversations', exact: true }).click();
  await page.locator('[data-ride="returns"]').first().waitFor();
  await picture(page, 'conversations');
});

test('pictures of two hundred switches', async ({ page }) => {
  test.setTimeout(120_000);
  const document = leanDesign({ ...campusOf({ switches: 200, vlans: 32 }), name: 'Fernhollow campus' });
  const { id } = (await (await page.request.post('/api/designs', { data: { do: 'import', document } })).json()) as {
    id: string;
  };
  await page.goto(`/designs/${id}`);
  await settled(page);
  await picture(page, 'two-hundred');
});

test('a picture of intents', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('tab', { name: 'Prove', exact: true }).click();
  const line = page.getByLabel('Line for intents');
  await line.fill('ridge-a is root of vlan 15,25');
  await line.press('Enter');
  await page.getByRole('button', { name: 'add a campus in order' }).click();
  await page.getByText('4 of 10 intents hold.').waitFor();
  await page.locator('[data-alone]').first().waitFor();
  await picture(page, 'prove');
});
