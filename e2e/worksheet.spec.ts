import { expect, test } from '@playwright/test';
import { createDesign, inspector, saved, settled, treeRow } from './design';

test('a worksheet with one wrong answer: the trees are hidden, then compared, and the result is kept', async ({
  page,
}) => {
  await createDesign(page, 'Valley station');
  await page.getByRole('tab', { name: 'Cable', exact: true }).click();
  for (const line of ['weir 1 = mill 1', 'mill 2 = gatehouse 1', 'gatehouse 2 = weir 2']) {
    const field = page.getByLabel('Quick-cabling line');
    await field.fill(line);
    await field.press('Enter');
    await expect(field).toHaveValue('');
  }
  await expect(inspector(page)).toContainText('3 switches, 3 links');
  await page.getByRole('tab', { name: 'Root' }).click();
  await settled(page);
  await page.getByRole('tab', { name: 'Worksheet' }).click();
  await page.getByRole('button', { name: 'Begin' }).click();
  const rail = page.getByRole('navigation', { name: 'Trees' });
  await expect(rail).toContainText('Hidden while a worksheet is filled in.');
  await page.getByRole('tab', { name: 'Ports', exact: true }).click();
  await expect(page.getByRole('tabpanel')).toHaveText('Hidden while a worksheet is filled in.');
  await page.getByRole('tab', { name: 'Worksheet' }).click();

  await page.getByLabel('Root of the common tree').selectOption('weir');
  for (const [name, cost] of [
    ['weir', '0'],
    ['mill', '20000'],
    ['gatehouse', '40000'],
  ])
    await page.getByLabel(`Root path cost of ${name}`).fill(cost!);
  const roles = {
    'weir port 1': 'designated',
    'weir port 2': 'designated',
    'mill port 1': 'root',
    'mill port 2': 'designated',
    'gatehouse port 1': 'alternate',
    'gatehouse port 2': 'root',
  };
  for (const [end, role] of Object.entries(roles)) {
    await page.getByLabel(`Role of ${end}`).selectOption(role);
    await page.getByLabel(`State of ${end}`).selectOption(role === 'alternate' ? 'discarding' : 'forwarding');
  }
  await expect(page.getByText('16 of 16 answers filled in')).toBeVisible();
  await page.getByRole('button', { name: 'Compare' }).click();
  const drawer = page.locator('#drawer-table');
  await expect(drawer).toContainText('15 of 16 right in the common tree');
  await expect(
    drawer.getByRole('row', {
      name: /gatehouse root path cost 40.000 20.000 The costs of the ports toward the root add up: 20.000 at gatehouse port 2/,
    }),
  ).toBeVisible();
  await expect(treeRow(page, 'cst')).toContainText('root weir');
  await drawer.getByRole('button', { name: 'gatehouse', exact: true }).click();
  await expect(inspector(page).getByRole('heading', { level: 2 })).toHaveText('gatehouse');
  await saved(page);
  await page.reload();
  await settled(page);
  await page.getByRole('tab', { name: 'Worksheet' }).click();
  await expect(page.getByRole('list', { name: 'Results' })).toContainText('15 of 16 right in the common tree');
});

test('a practice network opens with its trees hidden and can be put aside', async ({ page }) => {
  await page.goto('/');
  await page.getByText('Exercises: networks that do not do yet').click();
  await page.getByRole('button', { name: 'Level 3' }).click();
  await page.waitForURL(/worksheet=vlan%3A25/);
  const sheet = page.getByRole('table', { name: 'Worksheet for VLAN 25' });
  await expect(sheet).toBeVisible();
  const rail = page.getByRole('navigation', { name: 'Trees' });
  await expect(rail).toContainText('Hidden');
  await sheet.getByLabel(/^Role of weir port 1/).selectOption('designated');
  await page.reload();
  await expect(sheet.getByLabel(/^Role of weir port 1/)).toHaveValue('designated');
  await expect(rail).not.toContainText('root ');
  await page.getByRole('button', { name: 'Close, keep answers', exact: true }).click();
  await expect(rail).toContainText('root ');
  expect(page.url()).not.toContain('worksheet');

  // It is an exercise: what is asked, and how far it is.
  await page.getByRole('tab', { name: 'Prove', exact: true }).click();
  await page.getByRole('tab', { name: 'Exercise' }).click();
  await expect(page.getByText('Of the worksheet nothing is filled in yet.')).toBeVisible();
  await page.getByRole('button', { name: 'fill it in' }).click();
  await expect(sheet.getByLabel(/^Role of weir port 1/)).toHaveValue('designated');
  await page.getByRole('button', { name: 'Compare' }).click();
  await saved(page);
  await page.getByRole('tab', { name: 'Prove', exact: true }).click();
  await page.getByRole('tab', { name: 'Exercise' }).click();
  await expect(page.getByText(/Of the worksheet \d+ of \d+ are right\./)).toBeVisible();
});
