/** What was designed leaves the workbench as files. */
import { copyFileSync, readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { openDemo, selectSwitch, treeRow } from './design';

test('settings are read in an open form, follow an edit, and are saved one by one and together', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('tab', { name: 'Hand over', exact: true }).click();
  await selectSwitch(page, 'lodge');
  const text = page.getByLabel('lodge.openconfig.json');
  await expect(text).toContainText('"system-name": "lodge"');
  await page.getByRole('complementary').getByLabel('Name', { exact: true }).fill('Lodge');
  await page.keyboard.press('Enter');
  await expect(text).toContainText('"system-name": "Lodge"');
  const [one] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save this file' }).click(),
  ]);
  expect(one.suggestedFilename()).toBe('lodge.openconfig.json');
  const saved = JSON.parse(readFileSync(await one.path(), 'utf8')) as Record<string, unknown>;
  expect(Object.keys(saved)).toContain('openconfig-spanning-tree:stp');
  await page.getByLabel('Form', { exact: true }).selectOption('linux');
  await expect(page.getByRole('region', { name: 'What the form cannot say' })).toContainText('classic STP alone');
  const [all] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save all 8 switches' }).click(),
  ]);
  expect(all.suggestedFilename()).toBe('fernhollow-observatory-linux.zip');

  // Only what differs from before the edit: a YANG Patch for the switch, and for those whose ports lead to it.
  await page.getByLabel('Form', { exact: true }).selectOption('openconfig');
  await page.getByLabel('What of it', { exact: true }).selectOption('0');
  await expect(page.getByLabel('lodge.openconfig-patch.json')).toContainText('system-name');
  await expect(page.getByRole('button', { name: 'Save all 4 switches' })).toBeVisible();
});

test('a template is written beside what it makes of a switch, kept, and written as files', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('tab', { name: 'Hand over', exact: true }).click();
  await selectSwitch(page, 'lodge');
  await page.getByRole('tab', { name: 'Templates', exact: true }).click();
  await page.getByRole('button', { name: 'New', exact: true }).click();
  const text = page.getByLabel('Text of the template');
  await text.fill('{{ name }}\n{{ ports | rangs }}');
  await expect(page.getByRole('alert').filter({ hasText: 'Line 2' })).toContainText('undefined filter: rangs');
  await text.fill('{{ name }}: {{ ports | ranges }}');
  await expect(page.getByLabel('Preview')).toHaveText('lodge: 1-3,5-6');
  await page.getByRole('region', { name: 'The template' }).getByLabel('Name').fill('Port ranges');
  await page.getByRole('button', { name: 'Keep it in the design' }).click();
  await page.getByRole('tab', { name: 'Settings', exact: true }).click();
  await page.getByLabel('Form', { exact: true }).selectOption({ label: 'Port ranges' });
  await expect(page.getByLabel('lodge.txt')).toHaveText('lodge: 1-3,5-6');

  // Through the library into another design, and out of the library again.
  await page.getByRole('tab', { name: 'Templates', exact: true }).click();
  await page.getByLabel('Template', { exact: true }).selectOption({ label: 'Port ranges' });
  await page.getByRole('button', { name: 'Keep it in the library' }).click();
  await expect(page.getByRole('button', { name: 'take it out of the library' })).toBeVisible();
  await openDemo(page);
  await page.getByRole('tab', { name: 'Hand over', exact: true }).click();
  await page.getByRole('tab', { name: 'Templates', exact: true }).click();
  await page.getByLabel('Template', { exact: true }).selectOption({ label: 'Port ranges (library)' });
  await page.getByRole('button', { name: 'Keep it in the design' }).click();
  await expect(page.getByRole('button', { name: 'forget it' })).toBeVisible();
  await page.getByLabel('Template', { exact: true }).selectOption({ label: 'Port ranges (library)' });
  await page.getByRole('button', { name: 'take it out of the library' }).click();
  await expect(page.getByLabel('Template', { exact: true }).getByRole('option', { name: /library/ })).toHaveCount(0);
});

test('tables go out, come back changed, are looked at on the map, and taken', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('tab', { name: 'Hand over', exact: true }).click();
  await page.getByRole('tab', { name: 'Tables', exact: true }).click();
  const [book] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save a spreadsheet' }).click(),
  ]);
  expect(book.suggestedFilename()).toBe('fernhollow-observatory.xlsx');
  const read = page.getByLabel('Tables to read back');
  await read.setInputFiles({ name: 'same.xlsx', mimeType: '', buffer: readFileSync(await book.path()) });
  await expect(page.getByText('Nothing in them differs from the design.')).toBeVisible();
  const csv = (name: string, text: string) => ({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });
  await read.setInputFiles(csv('priorities.csv', 'switch,vlan:15\nridge-a,5\n'));
  await expect(page.getByText('priorities.csv, line 2, vlan:15: found “5”')).toBeVisible();
  await read.setInputFiles(csv('priorities.csv', 'switch,vlan:15\nridge-a,4096\n'));
  await page.getByRole('button', { name: 'show it, step 1' }).click();
  await expect(treeRow(page, 'vlan:15')).toContainText('root ridge-a');
  await page.getByRole('button', { name: 'take this step, step 1' }).click();
  await expect(treeRow(page, 'vlan:15')).toContainText('root ridge-a');
  await expect(page.getByText('Nothing in them differs from the design.')).toBeVisible();
});

test('the report is one file, which works from a disk and needs nothing from outside', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('tab', { name: 'Hand over', exact: true }).click();
  await page.getByRole('tab', { name: 'Report', exact: true }).click();
  await page.getByLabel('Note to Summary').fill('For the night shift');
  await page.getByLabel('Note to Summary').blur();
  await page.getByRole('checkbox', { name: 'Loads' }).click();
  await expect(page.getByRole('checkbox', { name: 'Loads' })).not.toBeChecked();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Write the report' }).click(),
  ]);
  expect(file.suggestedFilename()).toBe('fernhollow-observatory.report.html');
  const asked: string[] = [];
  page.on('request', (request) => asked.push(request.url()));
  const kept = `${await file.path()}.html`;
  copyFileSync(await file.path(), kept);
  await page.goto(`file://${kept}`);
  await expect(page.getByRole('heading', { name: 'Fernhollow Observatory' })).toBeVisible();
  await expect(page.locator('#summary')).toContainText('For the night shift');
  await expect(page.locator('#loads')).toHaveCount(0);
  const drawn = await page.locator('#trees svg').first().boundingBox();
  expect(drawn!.width).toBeGreaterThan(600);
  expect(asked.filter((url) => !url.startsWith('file:') && !url.startsWith('data:'))).toEqual([]);
  const pages = await page.pdf({ format: 'Letter' });
  expect(pages.length).toBeGreaterThan(10_000);
});

test('a link shows a colleague what was shown: view, tree and selection, of an earlier revision', async ({ page }) => {
  await page.context().grantPermissions(['clipboard-read', 'clipboard-write']);
  await openDemo(page);
  const design = page.url();
  await page.getByRole('tab', { name: 'Guard', exact: true }).click();
  await treeRow(page, 'vlan:35').getByRole('button').first().click();
  await selectSwitch(page, 'workshop');
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox').fill('copy a link');
  await page.keyboard.press('Enter');
  await expect.poll(() => page.evaluate(() => navigator.clipboard.readText())).toContain('view=Guard');
  const link = await page.evaluate(() => navigator.clipboard.readText());
  await page.goto(`${link}&revision=0`);
  await expect(page.getByRole('tab', { name: 'Guard', exact: true })).toHaveAttribute('aria-selected', 'true');
  await expect(page.getByRole('complementary', { name: 'Inspector' })).toContainText('workshop');
  await expect(treeRow(page, 'vlan:35').locator('[aria-pressed=true]')).toBeVisible();
  await expect(page.getByText('Looking at revision 0; nothing can be changed here.')).toBeVisible();
  expect(page.url()).toBe(design);
});
