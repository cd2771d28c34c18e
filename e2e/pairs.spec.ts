/** The data room's pair: what its keepalive makes of a lost peer link, and a pair made by hand. */
import { expect, test, type Page } from '@playwright/test';
import { createDesign, inspector, openDemo, saved, selectSwitch, settled } from './design';

const view = (page: Page, name: string) => page.getByRole('tab', { name, exact: true }).click();
const pair = (page: Page) => inspector(page).getByRole('region', { name: 'Its pair' });
const yoke = (page: Page) => page.locator('.react-flow [data-pair]');

async function play(page: Page, scenario: string) {
  await view(page, 'Break');
  await page.getByLabel('Scenario').first().selectOption({ label: scenario });
  await page.getByRole('slider', { name: 'Time' }).waitFor();
}

test('a keepalive over the peer link makes two of a pair; out of band one of them gives way', async ({ page }) => {
  await openDemo(page, 'town');
  await page.getByRole('tab', { name: /^Findings/ }).click();
  await expect(page.getByText('data-a and data-b have their keepalive over the peer link').first()).toBeVisible();
  await expect(yoke(page)).toHaveAttribute('data-pair', 'whole');

  await play(page, 'The data room’s peer link is cut');
  await page.getByRole('button', { name: 'Next change' }).click();
  await expect(yoke(page)).toHaveAttribute('data-pair', 'apart');
  await page.getByRole('tab', { name: /^Outages/ }).click();
  await expect(page.getByRole('row', { name: /storm|circle/ }).first()).toBeVisible();

  await selectSwitch(page, 'data-b');
  await expect(pair(page)).toContainText('It is one with data-a, as secondary. The keepalive is heard.');
  await pair(page).getByRole('button', { name: 'keepalive out of band' }).click();
  await expect(pair(page).getByLabel('Keepalive', { exact: true })).toHaveValue('out-of-band');
  await expect(page.getByRole('row', { name: /storm|circle/ })).toHaveCount(0);
  await expect(page.getByRole('row', { name: /backup.*no path/ }).first()).toBeVisible();
  await expect(page.getByRole('row', { name: /reception.*(no path|outdated)/ })).toHaveCount(0);
  await saved(page);
});

test('a switch of it that loses power takes along what hangs on it alone', async ({ page }) => {
  await openDemo(page, 'town');
  await play(page, 'One switch of the data room’s pair loses power');
  await page.getByRole('tab', { name: /^Outages/ }).click();
  await expect(page.getByRole('row', { name: /accounts/ }).first()).toContainText('no path');

  await selectSwitch(page, 'data-a');
  await inspector(page).getByRole('button', { name: 'The peer link is cut' }).click();
  await expect(
    page.getByRole('listitem').filter({ hasText: 'The link data-a port 1 to data-b port 1 is cut' }),
  ).toBeVisible();
});

test('cables between two peers may be lost by hand, and each says how it stands', async ({ page }) => {
  await openDemo(page, 'town');
  await selectSwitch(page, 'data-a');
  await pair(page).getByLabel('Keepalive', { exact: true }).selectOption({ label: 'Out of band' });
  await pair(page).getByLabel('Priority in the pair').fill('300');
  await pair(page).getByLabel('Priority in the pair').press('Enter');
  await expect(pair(page)).toContainText('It is one with data-b, as secondary.');
  await pair(page).getByLabel('Domain').fill('8');
  await pair(page).getByLabel('Domain').press('Enter');
  await expect(pair(page)).toContainText('No other switch is in its domain');
  await expect(yoke(page)).toHaveCount(0);
  await pair(page)
    .getByRole('button', { name: 'put data-a in domain 7' })
    .or(pair(page).getByRole('button', { name: 'put data-b in domain 8' }))
    .first()
    .click();
  await expect(yoke(page)).toHaveAttribute('data-pair', 'whole');
  await saved(page);
});

test('two switches become a pair, with bundles to whoever is cabled to both', async ({ page }) => {
  await createDesign(page, 'A pair by hand');
  await page.keyboard.press('/');
  await page.getByLabel('Quick-cabling line').fill('one 1-2 = two 1-2 10G\nleaf = one + two\nalone = two');
  await page.getByRole('button', { name: 'Do 3 lines' }).click();
  await settled(page);
  await selectSwitch(page, 'one');
  await page.locator('[data-switch="leaf"]').click({ modifiers: ['Control'] });
  await inspector(page).getByRole('button', { name: 'Make them a pair' }).click();
  await expect(pair(page)).toContainText('It is one with leaf, as primary.');
  await page.keyboard.press('Control+z');
  await expect(pair(page)).toBeHidden();

  await selectSwitch(page, 'one');
  await page.locator('[data-switch="two"]').click({ modifiers: ['Control'] });
  await inspector(page).getByRole('button', { name: 'Make them a pair' }).click();
  await expect(pair(page)).toContainText('It is one with two, as primary.');
  await expect(yoke(page)).toHaveAttribute('data-pair', 'whole');
  await view(page, 'Bundle');
  await page.getByRole('tab', { name: /^Bundles/ }).click();
  await expect(page.getByRole('row', { name: /leaf.*one and two/ }).first()).toBeVisible();
  await saved(page);
});
