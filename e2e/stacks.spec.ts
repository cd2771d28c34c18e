/** The library's stack: what is lost with one member, and what a better cabling keeps. */
import { expect, test, type Page } from '@playwright/test';
import { inspector, openDemo, saved, selectSwitch } from './design';

const view = (page: Page, name: string) => page.getByRole('tab', { name, exact: true }).click();
const members = (page: Page) => inspector(page).getByRole('region', { name: 'Members of the stack' });

test('a stack cabled as a chain loses its end with its middle, and no longer does as a ring', async ({ page }) => {
  await openDemo(page, 'town');
  await page.getByRole('tab', { name: /^Findings/ }).click();
  await expect(page.getByText('library is a stack cabled as a chain')).toBeVisible();
  await expect(page.getByText('library: all 2 cables to other switches are on member 1')).toBeVisible();

  await selectSwitch(page, 'library');
  const middle = members(page).getByRole('group', { name: 'member 2' });
  await middle.getByRole('button', { name: 'switch off' }).click();
  await expect(members(page)).toContainText('One of its 3 members acts as the switch: member 1.');
  await expect(members(page).getByRole('group', { name: 'member 3' })).toContainText('ports down; ports 3/1, 3/5');
  await inspector(page).getByLabel('Cabled as').selectOption({ label: 'Ring' });
  await expect(members(page)).toContainText('2 of its 3 members act as one switch');
  await expect(page.getByText('library is a stack cabled as a chain')).toBeHidden();
  await middle.getByRole('button', { name: 'switch on' }).click();
  await saved(page);
});

test('its first member takes the whole library along in a scenario', async ({ page }) => {
  await openDemo(page, 'town');
  await view(page, 'Break');
  await page
    .getByLabel('Scenario')
    .first()
    .selectOption({ label: 'The first member of the library’s stack loses power' });
  await page.getByRole('slider', { name: 'Time' }).waitFor();
  await page.getByRole('tab', { name: /^Outages/ }).click();
  await expect(page.getByRole('row', { name: /catalogue/ }).first()).toContainText('no path');

  await selectSwitch(page, 'library');
  await inspector(page).getByLabel('Of its members').selectOption({ label: 'Member 3' });
  await inspector(page).getByRole('button', { name: 'Its stack cable is cut' }).click();
  await expect(
    page.getByRole('listitem').filter({ hasText: 'The stack cable after member 3 of library is cut' }),
  ).toBeVisible();
});
