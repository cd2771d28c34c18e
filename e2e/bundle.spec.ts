import { expect, test } from '@playwright/test';
import { inspector, map, openDemo, saved, selectSwitch, setSetting, treeRow } from './design';

test('an engineer bundles the ridge links, loses a member, and reads why two passive ends stay down', async ({
  page,
}) => {
  await openDemo(page);
  await selectSwitch(page, 'ridge-a');
  await setSetting(page, 'VLAN 15', '4096');
  await expect(treeRow(page, 'vlan:15')).toContainText('root ridge-a');

  // The lens lists what is bundled and what waits to be.
  await page.getByRole('tab', { name: 'Bundle', exact: true }).click();
  const table = page.getByRole('grid', { name: /^Bundles/ });
  await expect(table.getByRole('row', { name: /lodge Uplinks ridge-a, ridge-b Active down 0 of 2/ })).toBeVisible();
  await table.getByRole('row', { name: /ridge-a not bundled ridge-b/ }).click();
  await expect(inspector(page).getByRole('region', { name: 'Bundle these' })).toContainText(
    'to ridge-b on ridge-a, ports 1, 2; to ridge-a on ridge-b, ports 1, 2',
  );
  await inspector(page).getByRole('button', { name: 'Bundle these' }).click();

  // Both ends in one step: up, one port to spanning tree, half the cost, a band on the map.
  await expect(inspector(page).getByRole('region', { name: 'Verdict' })).toContainText('Up: 2 of 2 members active.');
  await expect(table.getByRole('row', { name: /ridge-b to ridge-a ridge-a Active up 2 of 2/ })).toBeVisible();
  await expect(map(page).locator('[data-bundle="to-ridge-b"][data-up="true"]')).toHaveCount(1);
  const costOf = async (port: string) => {
    await page.getByRole('tab', { name: 'Ports', exact: true }).click();
    await page.getByLabel('Filter ports').fill(`VLAN 15 ridge-b ${port}`);
    return page
      .getByRole('grid', { name: /^Ports: role/ })
      .getByRole('row', { name: new RegExp(`ridge-b ${port} ridge-a`) });
  };
  await expect(await costOf('to-ridge-a')).toContainText('1\u202f000');
  await expect(await costOf('to-ridge-a')).toContainText('root');
  await expect(map(page).locator('[data-link="l1"] [data-end="root"], [data-link="l2"] [data-end="root"]')).toHaveCount(
    2,
  );

  // A member is lost: the bundle stays up and costs more, its strand stays on the other link.
  await inspector(page).getByRole('button', { name: 'take this member down' }).first().click();
  await expect(inspector(page).getByRole('region', { name: 'Verdict' })).toContainText('Up: 1 of 2 members active.');
  await expect(await costOf('to-ridge-a')).toContainText('2\u202f000');
  await expect(map(page).locator('[data-link="l1"] [data-end="root"]')).toHaveCount(0);
  await expect(map(page).locator('[data-link="l2"] [data-end="root"]')).toHaveCount(1);
  await inspector(page).getByRole('button', { name: 'bring it back' }).click();
  await expect(inspector(page).getByRole('region', { name: 'Verdict' })).toContainText('Up: 2 of 2');

  // Passive at both ends: down, and why, in the matrix too; a click mends it.
  const settings = inspector(page).getByRole('region', { name: 'Settings of the bundle' });
  await settings.getByLabel('Mode').selectOption('passive');
  await expect(inspector(page).getByRole('region', { name: 'Verdict' })).toContainText('Up: 2 of 2');
  await page.getByRole('tab', { name: 'Bundles' }).click();
  await table.getByRole('row', { name: /ridge-b to ridge-a/ }).click();
  await settings.getByLabel('Mode').selectOption('passive');
  await expect(inspector(page).getByRole('region', { name: 'Verdict' })).toContainText(
    'both ends wait for the other to speak (passive and passive)',
  );
  await page.getByRole('tab', { name: 'Modes' }).click();
  await expect(page.getByRole('table', { name: 'Which modes come up' }).locator('[aria-current]')).toHaveText(
    'single ports',
  );
  await expect(map(page).locator('[data-bundle][data-up="false"]')).toHaveCount(2); // this one and the lodge's
  await inspector(page).getByRole('button', { name: 'make ridge-b active' }).click();
  await expect(inspector(page).getByRole('region', { name: 'Verdict' })).toContainText('Up: 2 of 2');
  await saved(page);
});

test('a plan is simulated step by step, flows are spread, and a mode that changes is watched on the clock', async ({
  page,
}) => {
  await openDemo(page);
  await page.getByRole('tab', { name: 'Bundle', exact: true }).click();

  await page.getByRole('tab', { name: 'Plan of action' }).click();
  const plan = page.getByRole('table', { name: 'Plan of action' });
  await expect(plan.getByRole('row')).toHaveCount(7);
  await page.getByRole('button', { name: 'Simulate each step' }).click();
  await expect(plan.getByText('Nobody is cut off.')).toHaveCount(6);
  await page.getByLabel('How to bundle').selectOption('static-both-ends');
  await page.getByRole('button', { name: 'Simulate each step' }).click();
  await expect(plan.getByRole('row').nth(1)).toContainText('Frames circle.');
  await page.getByLabel('How to bundle').selectOption('lacp');
  await page.getByRole('button', { name: 'Take over the result' }).click();
  await expect(page.getByText('No links run side by side unbundled')).toBeVisible();

  await page.getByRole('tab', { name: 'Flows' }).click();
  await page.getByRole('combobox', { name: 'Bundle' }).selectOption({ label: 'ridge-a, to ridge-b' });
  await page.getByRole('combobox', { name: 'Flows' }).selectOption('100');
  await page.locator('#drawer-table').getByLabel('Hash').selectOption('3+4');
  await page.getByLabel('Lost member').selectOption('2');
  await expect(
    page.getByText(/100 made-up flows over 2 of 2 members.*never gets more than 10 Gb\/s.*Without 2, \d+ flows move/),
  ).toBeVisible();

  await page.getByRole('tab', { name: 'Bundles' }).click();
  await page
    .getByRole('grid', { name: /^Bundles/ })
    .getByRole('row', { name: /ridge-a to ridge-b/ })
    .click();
  await inspector(page).getByLabel('This end becomes').selectOption('static');
  const lane = page
    .getByRole('list', { name: 'Rows' })
    .getByRole('img', { name: /^ridge-b to ridge-a, port 1: from 0\.000 s active; from .* waiting/ });
  await expect(lane).toBeVisible();
  await page.getByRole('tab', { name: 'Order of events' }).click();
  await expect(page.getByText('The bundle to ridge-b of ridge-a becomes static.')).toBeVisible();
});
