/** The design is held against what its network tells: the wrong root is found, with its reason and its place. */
import { writeFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { fernhollow } from '../src/core/demo/demos';
import { inspector, observationOf, openDemo, selectSwitch, setSetting } from './design';

test('a wrong root is found in what the network tells, explained, and led to', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('tab', { name: 'Observe', exact: true }).click();
  await expect(page.getByRole('region', { name: 'How a network is read' })).toContainText('knot-path observe');
  const file = test.info().outputPath('observed.json');
  writeFileSync(file, observationOf(fernhollow()));
  await page.getByLabel('Observation', { exact: true }).setInputFiles(file);
  await expect(page.getByText(/8 switches read, \d+ things compared: all is as designed/)).toBeVisible();

  // The design goes on; the network does not know of it.
  await selectSwitch(page, 'ridge-a');
  await setSetting(page, 'All trees', '4096');
  const rows = page.getByRole('table', { name: 'Differences' });
  await expect(rows.getByRole('row').nth(1)).toContainText('another root');
  await expect(rows.getByRole('row').nth(1)).toContainText('ridge-a is set to 32768, the design says 4096');
  await expect(page.locator('[data-other]').first()).toBeVisible();
  await page.keyboard.press('Escape');
  await rows.getByRole('button', { name: 'workshop port 3', exact: true }).first().click();
  await expect(inspector(page).getByRole('heading', { name: /^workshop/ })).toBeVisible();

  await page.getByRole('tab', { name: 'Who was read', exact: true }).click();
  await expect(page.getByRole('table', { name: 'Who was read' }).getByRole('row')).toHaveCount(9);

  // What is no observation is told, and what was read before stays.
  await page.getByRole('tab', { name: 'Held against', exact: true }).click();
  await page
    .getByLabel('Observation', { exact: true })
    .setInputFiles({ name: 'lab.json', mimeType: '', buffer: Buffer.from('{"format":"knot-path-lab"}') });
  await expect(page.getByRole('alert').filter({ hasText: 'This is no observation' })).toBeVisible();
  await expect(rows).toBeVisible();

  // What is there is on the map; taken over, the design is as it is.
  await page.getByRole('button', { name: 'show it on the map' }).click();
  await expect(page.getByText(/Looking at the network as it was read/)).toBeVisible();
  await page.getByRole('button', { name: 'show the design' }).click();
  await rows.getByRole('row').nth(1).getByRole('button', { name: 'take over' }).click();
  await expect(page.getByText('All that was read is as designed.')).toBeVisible();
});
