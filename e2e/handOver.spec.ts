/** What was designed leaves the workbench as files. */
import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { openDemo, selectSwitch } from './design';

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

  // Only what differs from before the edit: a YANG Patch for one switch.
  await page.getByLabel('Form', { exact: true }).selectOption('openconfig');
  await page.getByLabel('What of it', { exact: true }).selectOption('0');
  await expect(page.getByLabel('lodge.openconfig-patch.json')).toContainText('system-name');
  await expect(page.getByRole('button', { name: 'Save all 1 switch' })).toBeVisible();
});
