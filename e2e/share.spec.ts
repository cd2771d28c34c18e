/** Colleagues look at a design: on a page that follows it, and in a file without a server; and know what was decided. */
import { expect, test } from '@playwright/test';
import { inspector, openDemo, selectLink, selectSwitch, treeRow } from './design';

test('a page to look at follows the design, and changes nothing', async ({ page, context }) => {
  await openDemo(page);
  const reader = await context.newPage();
  await reader.goto(`${page.url().split('?')[0]!}/read`);
  await expect(reader.getByText('revision 0, to look at only')).toBeVisible();
  await expect(reader.getByRole('button', { name: 'Undo' })).toHaveCount(0);
  await selectSwitch(reader, 'lodge');
  await expect(reader.getByText('To look at only: nothing can be changed here.')).toBeVisible();
  await expect(reader.getByRole('complementary').getByLabel('Name', { exact: true })).not.toBeEditable();
  await reader.keyboard.press('Delete');
  await selectSwitch(page, 'lodge');
  await page.getByRole('complementary').getByLabel('Name', { exact: true }).fill('Gate lodge');
  await page.keyboard.press('Enter');
  await expect(reader.getByText('revision 1, to look at only')).toBeVisible();
  await expect(reader.locator('[data-switch="lodge"]').getByText('Gate lodge', { exact: true })).toBeVisible();
});

test('one file shows the map, trees and tables, finds and plays, and asks nobody', async ({ page, context }) => {
  await openDemo(page);
  await page.getByRole('tab', { name: 'Hand over', exact: true }).click();
  await page.getByRole('tab', { name: 'Share', exact: true }).click();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save the file' }).click(),
  ]);
  expect(file.suggestedFilename()).toBe('fernhollow-observatory.html');
  const alone = await context.newPage();
  const asked: string[] = [];
  alone.on('request', (request) => asked.push(request.url()));
  const path = test.info().outputPath('alone.html');
  await file.saveAs(path);
  await alone.goto(`file://${path}`);
  await expect(treeRow(alone, 'vlan:15')).toContainText('root lodge');
  await selectSwitch(alone, 'workshop');
  await expect(alone.getByRole('heading', { name: 'workshop' })).toBeVisible();
  await expect(alone.getByRole('tab', { name: /^Findings \d/ })).toBeVisible();
  await alone.getByRole('tab', { name: 'Break', exact: true }).click();
  await selectLink(alone, 'l13');
  await inspector(alone).getByRole('button', { name: 'Cut it', exact: true }).click();
  await expect(alone.getByText(/^settled at 1\.0\d\d s$/)).toBeVisible();
  expect(asked.filter((url) => !/^(file|blob|data):/.test(url))).toEqual([]);
});

test('a finding that stays on purpose leaves the count, with its reason, and can be opened again', async ({ page }) => {
  await openDemo(page);
  const tab = page.getByRole('tab', { name: /^Findings/ });
  await expect(tab).toHaveText('Findings 7');
  await tab.click();
  const list = page.getByRole('list', { name: 'Findings' });
  const text = await list.getByRole('listitem').first().locator('p').first().innerText();
  await list.getByRole('button', { name: 'decide' }).first().click();
  await list.getByLabel('Reason').fill('the gate is manned');
  await list.getByRole('button', { name: 'Keep it' }).click();
  await expect(tab).toHaveText('Findings 6');
  const last = list.getByRole('listitem').last();
  await expect(last).toContainText(text);
  await expect(last).toContainText('Stays as it is: the gate is manned');
  await last.getByRole('button', { name: 'open it again' }).click();
  await expect(tab).toHaveText('Findings 7');
});
