import { expect, test, type Page } from '@playwright/test';
import { inspector, map, openDemo, portEnd, saved, selectSwitch, setSetting, settled, treeRow } from './design';

async function openValley(page: Page): Promise<void> {
  await page.goto('/');
  await page.getByRole('button', { name: 'Add the valley demo' }).click();
  await page.waitForURL(/\/designs\//);
  await settled(page);
  await page.getByRole('tab', { name: 'Group', exact: true }).click();
}

const board = (page: Page) => page.getByRole('region', { name: 'Board' });
const column = (page: Page, name: string) => board(page).getByRole('region', { name, exact: true });

test('the switch with the wrong map is found, compared, and made equal by a click', async ({ page }) => {
  await openValley(page);
  await expect(treeRow(page, 'mst:2')).toContainText('maps differ');
  await expect(map(page).locator('[data-shade]')).toHaveCount(2);

  await page.getByRole('tab', { name: /Findings 1/ }).click();
  await expect(page.getByText(/gatehouse maps VLAN 55 to instance 1, the others to instance 2/)).toBeVisible();
  await page.getByRole('tab', { name: 'Regions' }).click();
  await expect(page.getByRole('row', { name: /VLAN 55 instance 1 instance 2 differs/ })).toBeVisible();

  // What it does to the trees is seen before it is done.
  await page.getByRole('button', { name: 'show proposal 1 on the map' }).click();
  await expect(map(page).locator('[data-shade]')).toHaveCount(1);
  await page.getByRole('button', { name: 'go back to now' }).first().click();
  await page.getByRole('button', { name: 'take it, proposal 1' }).click();
  await expect(treeRow(page, 'mst:2')).toContainText('VLAN 25, 45, 55, 85');
  await expect(page.getByRole('tab', { name: 'Changed ports 3' })).toBeVisible();
  await expect(page.getByText('are in one region: name, revision and the whole map agree')).toBeVisible();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(treeRow(page, 'mst:2')).toContainText('maps differ');

  // The same from the switch itself.
  await selectSwitch(page, 'gatehouse');
  await inspector(page).getByRole('button', { name: 'make equal to VALLEY (number 1 of 2 of this name)' }).click();
  await expect(map(page).locator('[data-shade]')).toHaveCount(1);
  await saved(page);
});

test('VLANs are laid onto instances by dragging, by ranges and by a rule, and their root is chosen on the board', async ({
  page,
}) => {
  await openValley(page);
  await column(page, 'instance 2')
    .getByRole('button', { name: /^45 Office/ })
    .dragTo(column(page, 'instance 1'));
  await expect(column(page, 'instance 1').getByRole('button', { name: /^45 Office/ })).toBeVisible();
  await page.getByLabel('VLANs to assign').fill('75,85,5000');
  await page.getByRole('button', { name: 'Assign', exact: true }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'VLAN 5000' })).toBeVisible();
  await page.getByLabel('VLANs to assign').fill('75,85');
  await page.getByRole('button', { name: 'to a new instance 3' }).click();
  await expect(treeRow(page, 'mst:3')).toContainText('maps differ');
  await page.getByRole('combobox', { name: 'Root of instance 3' }).selectOption('belfry');
  await expect(treeRow(page, 'mst:3')).toContainText('root belfry');
  await page.getByLabel('Rule').selectOption('load');
  await page.getByRole('button', { name: 'Assign all VLANs' }).click();
  await expect(column(page, 'instance 1').getByRole('button', { name: /^25 Image/ })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(column(page, 'instance 3').getByRole('button', { name: /^75 / })).toBeVisible();
  await page.reload();
  await settled(page);
  await page.getByRole('tab', { name: 'Group', exact: true }).click();
  await expect(column(page, 'instance 3').getByRole('button', { name: /^75 / })).toBeVisible();
});

test('many trees become two: proposed, seen, planned switch by switch, simulated, taken, and told in why', async ({
  page,
}) => {
  await openDemo(page);
  await page.getByRole('tab', { name: 'Group', exact: true }).click();
  await expect(board(page)).toContainText('No switch runs MSTP yet');
  await page.getByRole('tab', { name: 'Savings' }).click();
  await expect(
    page.getByRole('figure', { name: 'Trees a switch keeps: one tree for all 1, instances 3, one tree a VLAN 7' }),
  ).toBeVisible();
  await expect(page.getByRole('combobox', { name: 'Grouping' })).toContainText('Two instances suffice');
  await expect(
    page.getByRole('img', {
      name: /^Load of \d+ links in per cent of their speed. The most loaded: ridge-b 3 = dome-north 2, 52 %/,
    }),
  ).toBeVisible();
  await page.getByRole('tab', { name: 'Migration' }).click();
  await expect(page.getByLabel('Where to move')).toContainText('Two instances suffice');
  await page.getByRole('button', { name: 'Simulate each step' }).click();
  const steps = page.getByRole('table', { name: 'Migration to MSTP' });
  await expect(steps.getByRole('row').nth(1)).toContainText(/Nobody is cut off|does not reach/, { timeout: 60_000 });
  await expect(steps).not.toContainText('Frames circle');

  await page.getByRole('tab', { name: 'Board' }).click();
  await page.getByRole('button', { name: 'Propose from loads and topology' }).click();
  await expect(page.getByRole('list', { name: 'Proposals' })).toContainText('trees a switch keeps 7 to 3');
  await page.getByRole('button', { name: 'take it, proposal 1' }).click();
  await expect(treeRow(page, 'mst:2')).toContainText('root ridge-b');
  await expect(column(page, 'instance 1').getByRole('button', { name: /^15 Mount/ })).toBeVisible();

  // A switch out of the region: boundary and master in words, external and internal sums apart.
  await selectSwitch(page, 'dome-east');
  await inspector(page).getByRole('combobox', { name: 'Settings' }).selectOption('New settings…');
  await setSetting(page, 'Revision', '9');
  await expect(map(page).locator('[data-shade]')).toHaveCount(2);
  await page.getByRole('button', { name: 'show instance 1 alone' }).click();
  await portEnd(page, 'dome-east port 1').click();
  await expect(inspector(page).getByRole('region', { name: 'Why' })).toContainText(
    'Master: it leads out of the region toward the root of the CIST',
  );
  await page.getByRole('button', { name: 'show CIST alone' }).click();
  await expect(inspector(page).getByRole('region', { name: 'Why' })).toContainText('outside of regions');
  await page.getByRole('tab', { name: 'Steer', exact: true }).click();
  await selectSwitch(page, 'array-hut');
  await expect(page.getByRole('grid', { name: 'Ways to the root' })).toContainText(/inside/);
});

test('the way to MSTP is played on the clock, with the trees that there are at each instant', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('tab', { name: 'Group', exact: true }).click();
  await page.getByRole('tab', { name: 'Migration' }).click();
  await page.getByRole('button', { name: 'Play it on the timeline' }).click();
  await page.getByRole('slider', { name: 'Time' }).waitFor({ timeout: 60_000 });
  // Before the first switch moves there is no instance 2; at the end ridge-b is its root, and no VLAN has a tree of its own.
  await expect(treeRow(page, 'mst:2')).toContainText('root none now');
  await expect(treeRow(page, 'vlan:15')).toContainText('root lodge');
  await page.getByRole('button', { name: 'show instance 2 alone' }).click();
  await page.getByRole('slider', { name: 'Time' }).press('End');
  await expect(treeRow(page, 'mst:2')).toContainText('root ridge-b');
  await expect(treeRow(page, 'vlan:15')).toContainText('root none now');
  await expect(
    map(page).locator('[data-switch="ridge-b"]').getByRole('img', { name: 'root of MSTI 2', exact: true }),
  ).toBeAttached();
  // Back to what is: the trees of the design.
  await page.getByRole('tab', { name: 'Root', exact: true }).click();
  await expect(treeRow(page, 'mst:2')).toHaveCount(0);
  await expect(treeRow(page, 'vlan:1')).toBeVisible();
});
