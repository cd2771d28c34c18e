import { expect, test } from '@playwright/test';
import { inspector, map, openDemo, pullFray, saved, selectSwitch, treeRow } from './design';

test('roots and standbys are placed by keys and in the matrix, and the death of a root is seen beforehand', async ({
  page,
}) => {
  await openDemo(page);
  const matrix = page.getByRole('grid', { name: /^Roots/ });
  await page.getByRole('tab', { name: 'Roots', exact: true }).click();
  await expect(matrix.getByRole('row')).toHaveCount(9);

  // By keys: ridge-a root, ridge-b standby of the tree that is shown.
  await selectSwitch(page, 'ridge-a');
  await page.keyboard.press('p');
  await expect(treeRow(page, 'vlan:15')).toContainText('root ridge-a');
  await expect(map(page).getByRole('status').first()).toContainText('It had to get past lodge, workshop, array-hut.');
  await selectSwitch(page, 'ridge-b');
  await page.keyboard.press('s');
  await expect(treeRow(page, 'vlan:15')).toContainText('ridge-b');
  await expect(matrix.getByRole('row', { name: /ridge-a core/ })).toContainText('24576');
  await expect(matrix.getByRole('row', { name: /ridge-b core/ })).toContainText('28672');

  // In the matrix: other trees for the other ridge, by range and button.
  await page.getByLabel('Trees in the table').fill('25-45');
  await page.getByRole('button', { name: 'Root', exact: true }).click();
  for (const vid of [25, 35, 45]) await expect(treeRow(page, `vlan:${vid}`)).toContainText('root ridge-b');
  await page.getByLabel('Trees in the table').fill('55');

  // In a cell: what was typed stays until it is legal.
  const cell = matrix
    .getByRole('row', { name: /dome-east/ })
    .getByRole('gridcell')
    .nth(2);
  await cell.dblclick();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('4000');
  await page.keyboard.press('Enter');
  await expect(page.locator('#drawer-table').getByRole('alert')).toContainText('4000 is not. Nearest: 0 and 4096.');
  await page.keyboard.press('Control+a');
  await page.keyboard.type('4096');
  await page.keyboard.press('Enter');
  await expect(treeRow(page, 'vlan:55')).toContainText('root dome-east');
  await matrix.getByRole('row', { name: /lodge/ }).getByRole('gridcell').nth(2).click();
  await page.keyboard.press('w');
  await expect(matrix.getByRole('row', { name: /lodge/ })).toContainText('61440');

  // If ridge-a dies: who takes over, shown on the map and taken back.
  await page.getByRole('tab', { name: 'If a root dies' }).click();
  const losses = page.getByRole('grid', { name: 'If a root dies' });
  await expect(losses.getByRole('row', { name: /ridge-a VLAN 15 ridge-b .* nobody VLANs 25,35,45/ })).toBeVisible();
  await losses.getByRole('row', { name: /ridge-a VLAN 15/ }).click();
  await expect(page.locator('[data-switch="ridge-a"]')).toContainText('no power');
  await expect(treeRow(page, 'vlan:15')).toContainText('root ridge-b');
  await expect(map(page)).toContainText('Looking at the design if ridge-a dies');
  await page.locator('#drawer-table').getByRole('button', { name: 'go back to now' }).click();
  await expect(treeRow(page, 'vlan:15')).toContainText('root ridge-a');
  await expect(inspector(page).getByRole('heading', { level: 2 })).toHaveText('ridge-a');
  await saved(page);
});

test('a tree is steered: ways to the root added up, how near a port is to flipping, costs in a table', async ({
  page,
}) => {
  await openDemo(page);
  await page.getByRole('tab', { name: 'Steer' }).click();
  await selectSwitch(page, 'ridge-b');
  const ways = page.getByRole('grid', { name: 'Ways to the root' });
  await expect(ways.getByRole('row', { name: /the way taken ridge-b 7 › lodge/ })).toBeVisible();
  await ways.getByRole('row', { name: /ridge-b 1 › ridge-a 7 › lodge/ }).click();
  await expect(inspector(page).getByRole('heading', { level: 2 })).toHaveText('ridge-b, port 1');
  await map(page).getByRole('button', { name: 'ridge-b port 7', exact: true }).click();
  await expect(inspector(page)).toContainText('From 22\u202f001 on it becomes alternate');

  // What it says is what happens, typed into the table of costs for one tree.
  await page.getByRole('tab', { name: 'Costs' }).click();
  await page.getByLabel('Trees in the table').fill('15');
  await page.getByLabel('New path cost of the selected ports in these trees').fill('22001');
  await page.getByRole('button', { name: 'Set', exact: true }).click();
  await expect(map(page).getByRole('status').first()).toContainText('2 ports changed in VLAN 15');
  await expect(inspector(page)).toContainText('alternate, discarding');
  await expect(
    page.getByRole('grid', { name: /^Costs/ }).getByRole('row', { name: /ridge-b 7 lodge port 2/ }),
  ).toContainText('22\u202f001');
  await page.keyboard.press('Control+z');
  await saved(page);
});

test('an end is pointed at that should block instead: ways are proposed, shown, taken as one step', async ({
  page,
}) => {
  await openDemo(page);
  await page.getByRole('tab', { name: 'Steer' }).click();
  await page.getByRole('button', { name: 'ridge-a port 1', exact: true }).click();
  await inspector(page).getByRole('button', { name: 'Propose ways to block here' }).click();
  const proposals = inspector(page).getByRole('list', { name: 'Proposals' });
  await expect(proposals.getByRole('listitem').first()).toContainText('1 setting; 8 other ports change');
  await inspector(page).getByRole('button', { name: 'show proposal 1 on the map' }).click();
  await expect(map(page)).toContainText('Looking at the design with this proposal');
  await expect(inspector(page)).toContainText('alternate, discarding');
  await inspector(page).getByRole('button', { name: 'take it, proposal 1' }).click();
  await expect(page.locator('[data-save]')).toContainText('revision 1');
  await expect(inspector(page)).toContainText('alternate, discarding');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(inspector(page)).toContainText('designated, forwarding');

  // What cannot be is said, with the reason.
  await map(page).getByRole('button', { name: 'ridge-b port 1', exact: true }).click();
  await inspector(page).getByRole('button', { name: 'Propose ways to block here' }).click();
  await expect(inspector(page).getByRole('alert')).toContainText('It blocks there already in VLAN 15.');
  await saved(page);
});

test('a block is moved by pulling its frayed end to another link; wishes that contradict each other are named', async ({
  page,
}) => {
  await openDemo(page);
  await page.getByRole('tab', { name: 'Steer' }).click();
  // dome-east blocks toward ridge-b (l6); it should block toward ridge-a (l5).
  await pullFray(page, 'l6', 'l5');
  await expect(map(page).getByText('block at dome-east port 1')).toBeVisible();
  await page.mouse.up();
  const ways = page.getByRole('list', { name: 'Proposals' });
  await expect(ways.getByRole('listitem').first()).toContainText('1 setting; nothing else changes');
  await page.getByRole('button', { name: 'take it, proposal 1' }).click();
  await expect(map(page).getByRole('status').first()).toContainText('2 ports changed in VLAN 15');
  await expect(page.locator('[data-link="l5"] [data-frayed]')).toHaveCount(1);
  await expect(page.locator('[data-link="l6"] [data-frayed]')).toHaveCount(0);
  await expect(inspector(page)).toContainText('alternate, discarding');

  // Both parallel ridge links cannot carry at once.
  await page.getByRole('button', { name: 'clear all' }).click();
  for (const link of ['l1', 'l2'])
    await page
      .locator(`[data-link="${link}"] > path[pointer-events="stroke"]`)
      .click({ modifiers: link === 'l2' ? ['Control'] : [], force: true });
  await inspector(page).getByRole('button', { name: 'add to the wishes' }).click();
  await page.getByRole('button', { name: 'Propose ways', exact: true }).click();
  await expect(page.locator('#drawer-table').getByRole('alert')).toContainText(
    'close a loop at the one from ridge-a port 2 to ridge-b port 2',
  );
  await saved(page);
});

test('both ridges become root and standby for alternate VLANs, and the uplinks no longer idle', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('tab', { name: 'Steer' }).click();
  await page.getByRole('tab', { name: 'Load sharing' }).click();
  const sharing = page.locator('#drawer-table');
  await expect(page.getByRole('img', { name: /The most loaded: ridge-a 7 = lodge 1, 551 %/ })).toBeVisible();
  await expect(sharing).toContainText('8 links idle');
  await sharing.getByRole('button', { name: 'Propose ways to share' }).click();
  const first = page.getByRole('list', { name: 'Proposals' }).getByRole('listitem').first();
  await expect(first).toContainText('ridge-a root of VLANs 15,35,55, ridge-b its standby');
  await expect(first).toContainText('most loaded link 551 % to 52 %');
  await page.getByRole('button', { name: 'show proposal 1 on the map' }).click();
  await expect(sharing).toContainText('outlines: before the proposal');
  await expect(treeRow(page, 'vlan:25')).toContainText('root ridge-b');
  await page.getByRole('button', { name: 'take it, proposal 1' }).click();
  for (const [vid, root, standby] of [
    [15, 'ridge-a', 'ridge-b'],
    [25, 'ridge-b', 'ridge-a'],
    [35, 'ridge-a', 'ridge-b'],
  ])
    await expect(treeRow(page, `vlan:${vid}`)).toContainText(new RegExp(`root ${root}.*${standby}`, 's'));
  await expect(sharing).toContainText('1 link idles');
  await sharing.getByRole('button', { name: 'table', exact: true }).click();
  await expect(
    page
      .getByRole('grid', { name: 'Load of the links by trees' })
      .getByRole('row', { name: /ridge-b 3 = dome-north 2 10 Gb\/s 52 %/ }),
  ).toBeVisible();
  await page.getByRole('tab', { name: 'Control plane' }).click();
  await expect(page.getByRole('row', { name: /Per-VLAN rapid, running now/ })).toBeVisible();
  await saved(page);
});
