/** What must hold is written down, judged at each edit and under every failure. */
import { expect, test, type Page } from '@playwright/test';
import { map, openDemo, saved, setSetting, selectSwitch } from './design';

const view = (page: Page, name: string) => page.getByRole('tab', { name: new RegExp(`^${name}( \\d+)?$`) }).click();
const intents = (page: Page) => page.getByRole('list', { name: 'Intents' }).getByRole('listitem');
const foot = (page: Page) =>
  page.getByRole('navigation', { name: 'Trees' }).getByRole('button', { name: /intents? hold/ });

test('intents are typed, one is mended, an edit breaks it again, and the rail says so', async ({ page }) => {
  await openDemo(page);
  await view(page, 'Prove');
  await expect(page.getByText('No intents yet')).toBeVisible();
  const line = page.getByLabel('Line for intents');
  await line.pressSequentially('ridge-a is r');
  await page.getByRole('option', { name: /^root of/ }).waitFor();
  await line.press('Tab');
  await expect(line).toHaveValue('ridge-a is root of ');
  await line.pressSequentially('vlan 15,25');
  await expect(page.getByText('does not hold now: The root of VLANs 15,25 is lodge.')).toBeVisible();
  await line.press('Enter');
  await expect(intents(page).filter({ hasText: 'The root of VLANs 15,25 is lodge.' })).toHaveAttribute(
    'data-intent',
    'broken',
  );
  await expect(foot(page)).toHaveText('0 of 1 intent hold1 broken');

  await page.getByRole('button', { name: 'Make ridge-a root of VLANs 15,25' }).click();
  await expect(intents(page).first()).toHaveAttribute('data-intent', 'holds');
  await view(page, 'Root');
  await selectSwitch(page, 'lodge');
  await setSetting(page, 'VLAN 15', '0');
  await expect(foot(page)).toContainText('1 broken');
  await foot(page).click();
  await expect(intents(page).first()).toContainText('It held until “priority of lodge in VLAN 15');
  await page.keyboard.press('Control+z');
  await expect(intents(page).first()).toHaveAttribute('data-intent', 'holds');
  await saved(page);
});

test('every failure is tried, one is shown on the map and played on the timeline', async ({ page }) => {
  await openDemo(page);
  await view(page, 'Prove');
  await page.getByRole('button', { name: 'add a campus in order' }).click();
  const never = intents(page).filter({ hasText: 'whatever switch fails, access switches never become root' });
  await expect(never).toHaveAttribute('data-intent', 'broken');
  await expect(intents(page).filter({ hasText: 'whatever link or member fails, all hosts' })).toHaveAttribute(
    'data-intent',
    'holds',
  );
  await expect(map(page).locator('[data-alone="dome-north"]')).toHaveText('2 alone');

  await view(page, 'Every failure');
  const grid = page.getByRole('grid', { name: 'Every failure' });
  await grid.getByRole('row', { name: /^lodge has no power/ }).click();
  await expect(page.locator('[data-tree="vlan:15"]')).toContainText('root workshop');
  await expect(page.getByRole('list', { name: 'Intents that it breaks' })).toContainText(
    'never become root: The root of',
  );
  await page.getByRole('button', { name: 'Play it on the timeline' }).click();
  await page.getByRole('slider', { name: 'Time' }).waitFor();
  await expect(page.getByRole('tab', { name: 'Break', exact: true })).toHaveAttribute('aria-selected', 'true');
  await expect(page.locator('[data-tree="vlan:15"]')).toContainText('root lodge');
});

test('intents survive a page that is loaded again, and come back as lines', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await openDemo(page);
  await view(page, 'Prove');
  const line = page.getByLabel('Line for intents');
  await line.fill('"Duty desk", "Office desk" reach each other over ridge-a\nno link above 70 %');
  await line.press('Enter');
  await expect(intents(page)).toHaveCount(2);
  await saved(page);
  await page.reload();
  await view(page, 'Prove');
  await expect(intents(page)).toHaveCount(2);
  await page.getByRole('button', { name: 'copy as lines' }).click();
  await expect(page.getByText('Copied.')).toBeVisible();
  expect(await page.evaluate(() => navigator.clipboard.readText())).toBe(
    '"Duty desk", "Office desk" reach each other over ridge-a\nno link above 70 %',
  );
});

test('how long each failure cuts hosts off is simulated, and an intent about it is played', async ({ page }) => {
  await openDemo(page);
  await view(page, 'Prove');
  await view(page, 'Outages');
  await page.getByRole('button', { name: 'Simulate every failure' }).click();
  const grid = page.getByRole('grid', { name: 'Outages by failure' });
  await expect(grid.getByRole('row', { name: /^lodge has no power 8\.\d+ s/ })).toBeVisible({ timeout: 30_000 });
  await expect(page.getByRole('img', { name: /Failures by how long .* to 10 s: 1\./ })).toBeVisible();
  await page.getByRole('button', { name: 'by pair' }).click();
  await expect(page.getByRole('grid', { name: 'Outages by pair' })).toBeVisible();
  await page.getByRole('button', { name: 'matrix' }).click();
  const matrix = page.getByRole('table', { name: 'Longest outage of each pair' });
  await expect(matrix.getByRole('button', { name: /^8\.\d+ s$/ }).first()).toHaveAttribute(
    'title',
    'if lodge has no power',
  );

  await page.getByRole('button', { name: 'by failure' }).click();
  await page.getByLabel('Beside it').selectOption('stp');
  await expect(grid.getByRole('row', { name: /^lodge has no power 8\.\d+ s [34]\d\.\d+ s/ })).toBeVisible({
    timeout: 30_000,
  });

  await view(page, 'Intents');
  const line = page.getByLabel('Line for intents');
  await line.fill('whatever switch fails, all hosts are cut off no longer than 3 s');
  await line.press('Enter');
  await expect(intents(page).first()).toHaveAttribute('data-intent', 'broken', { timeout: 30_000 });
  await expect(intents(page).first()).toContainText('If lodge has no power: in VLAN');
  await page.getByRole('button', { name: 'play the failure' }).click();
  await page.getByRole('slider', { name: 'Time' }).waitFor();
  await expect(page.getByRole('tab', { name: 'Break', exact: true })).toHaveAttribute('aria-selected', 'true');
  await expect(page.getByRole('list', { name: 'What happens' })).toContainText('lodge loses power');
});

test('an exercise says what is asked, and that it is done', async ({ page }) => {
  await page.goto('/');
  await page.getByText('Exercises: networks that do not do yet').click();
  await expect(page.getByRole('list', { name: 'Exercises' }).getByRole('listitem')).toHaveCount(6);
  await page.getByRole('button', { name: 'A building without power' }).click();
  await page.waitForURL(/\/designs\//);
  const asked = page.getByRole('list', { name: 'What is asked' }).getByRole('listitem');
  await expect(asked.filter({ hasText: 'whatever group fails' })).toHaveAttribute('data-is', 'broken');
  await expect(page.getByText('1 of 2 that must hold do')).toBeVisible();

  await view(page, 'Cable');
  const line = page.getByLabel('Quick-cabling line');
  await line.fill('dome-north = dome-east 10G');
  await line.press('Enter');
  await view(page, 'Prove');
  await view(page, 'Exercise');
  await expect(page.getByText(/^Done\. 2 of 2 that must hold do.*with 3 settings touched\.$/)).toBeVisible();
  await saved(page);
  await page.getByRole('button', { name: 'begin again' }).click();
  await expect(asked.filter({ hasText: 'whatever group fails' })).toHaveAttribute('data-is', 'broken');
});

test('an order of steps is found from an earlier revision, shown on the map, and changed by hand', async ({ page }) => {
  await openDemo(page);
  await view(page, 'Cable');
  const line = page.getByLabel('Quick-cabling line');
  await line.fill('dome-north = dome-east 10G');
  await line.press('Enter');
  await view(page, 'Root');
  await selectSwitch(page, 'ridge-a');
  await setSetting(page, 'All trees', '4096');
  await view(page, 'Prove');
  await page.getByLabel('Line for intents').fill('all hosts reach each other');
  await page.getByLabel('Line for intents').press('Enter');
  await saved(page);
  await view(page, 'Prove');
  await view(page, 'Change plan');
  await page.getByLabel('Plan', { exact: true }).selectOption('0');
  await page.getByRole('button', { name: 'Find an order' }).click();
  const steps = page.getByRole('table', { name: 'Steps from revision 0 to now' }).locator('tbody').getByRole('row');
  await expect(steps).toHaveCount(4);
  const root = steps.filter({ hasText: 'ridge-a: priority 32768 to 4096' });
  await expect(root).toContainText('New root of VLANs 1,15,25,35,45,55,65: ridge-a.');
  await expect(page.getByText(/^4 steps from revision 0 to now: .* does all the way\./)).toBeVisible();
  await root.getByText('What to check').click();
  await expect(root).toContainText('Before: root of VLANs 1,15,25,35,45,55,65: lodge');
  await root.getByRole('button', { name: /^show it, step/ }).click();
  await expect(page.locator('[data-tree="vlan:15"]')).toContainText('root ridge-a');
  await page.locator('#drawer-table').getByRole('button', { name: 'go back to now' }).click();

  // The visit hangs on no other step: it may come at any place.
  const place = Number.parseInt(await root.innerText(), 10);
  const [way, next] = place < 4 ? (['later', place + 1] as const) : (['earlier', place - 1] as const);
  await root.getByRole('button', { name: `step ${place} ${way}` }).click();
  await expect(root.getByRole('rowheader')).toHaveText(String(next));
  await expect(steps).toHaveCount(4);

  // Played from the state that it begins with, it halts where one is to look.
  await expect(root.getByRole('checkbox')).toBeChecked();
  await page.getByRole('button', { name: 'Play it on the timeline' }).click();
  await page.getByRole('slider', { name: 'Time' }).waitFor({ timeout: 60_000 });
  await expect(page.locator('[data-tree="vlan:15"]')).toContainText('root lodge');
  await expect(page.locator('[data-hold]').first()).toBeAttached();
  await page.getByRole('button', { name: 'fastest' }).click();
  await expect(
    page
      .getByRole('status')
      .filter({ hasText: /^Held after step \d: check root of .*: ridge-a; .* Play on when that is so\./ }),
  ).toBeVisible();
  await expect(page.locator('[data-switch="ridge-a"]').getByRole('img', { name: /^root/ })).toBeVisible();
});

test('the steps to a proposal are found setting by setting, and taken one by one', async ({ page }) => {
  await openDemo(page);
  await view(page, 'Steer');
  await page.getByRole('tab', { name: 'Load sharing' }).click();
  await page.getByRole('button', { name: 'Propose ways to share' }).click();
  await page.getByRole('button', { name: 'show proposal 1 on the map' }).click();
  await view(page, 'Prove');
  await view(page, 'Change plan');
  await expect(page.getByLabel('Plan', { exact: true })).toContainText('from now to the design with this proposal');
  await page.getByLabel('Steps', { exact: true }).selectOption('settings');
  await page.getByRole('button', { name: 'Find an order' }).click();
  const steps = page
    .getByRole('table', { name: /^Steps from now to/ })
    .locator('tbody')
    .getByRole('row');
  await expect(steps).toHaveCount(6);
  await expect(steps.first()).toContainText(/: priority in VLANs .* as for all trees to/);
  await steps.first().getByRole('button', { name: 'take this step, step 1' }).click();
  await saved(page);
  await expect(page.getByText('The design has changed since: find it again.')).toBeVisible();
  await expect(page.locator('[data-save]')).toContainText('revision 1');
});
