/** A closet of another make: why the root blocks a port of its own, what each port hears, and what a port can speak instead. */
import { expect, test, type Page } from '@playwright/test';
import { inspector, map, openDemo, portEnd, saved, treeRow } from './design';

const view = (page: Page, name: string) => page.getByRole('tab', { name, exact: true }).click();

test('the root blocks a port of its own, says why, and no longer does once the closet has trees of VLANs', async ({
  page,
}) => {
  await openDemo(page, 'town');
  await view(page, 'Root');
  await treeRow(page, 'vlan:25').click();
  await portEnd(page, 'hall-a port 3').click();
  const why = inspector(page).getByRole('region', { name: 'Why' });
  await expect(why).toContainText('Backup');
  await expect(why).toContainText('then through stairs-a (port 1 to port 2) and stairs-b (port 2 to port 1)');
  const heard = inspector(page).getByRole('region', { name: 'BPDUs that come in' });
  await expect(heard.getByRole('listitem')).toHaveText([
    'RST BPDUs of the common tree, untagged, from stairs-b port 1: dropped: VLAN not carried.',
    /^RST BPDUs of VLANs 15,25,35, tagged, for trees of VLANs, from hall-a port 2, passed on through .*: read as such\.$/,
  ]);

  await page.getByRole('tab', { name: /^Findings/ }).click();
  await page.getByRole('button', { name: 'have trees of VLANs on that way' }).click();
  await expect(why).toContainText('Designated');
  await expect(map(page).locator('[data-switch="stairs-b"]')).toBeVisible();
  await saved(page);

  await portEnd(page, 'stairs-b port 2').click();
  await expect(why).toContainText('Alternate');
  await view(page, 'Cable');
  const speaks = inspector(page).getByLabel('Speaks', { exact: true });
  await expect(speaks).toHaveValue('per-vlan-rstp');
  await speaks.selectOption({ label: 'As its switch' });
  await expect(page.getByRole('button', { name: 'undo', exact: true })).toBeVisible();
  await page.getByRole('tab', { name: /^Findings/ }).click();
  await expect(page.getByText(/^frames of VLAN 15,25,35 circle/)).toBeVisible();
});

test('a second uplink into the closet lets frames circle until the root hears its own BPDU', async ({ page }) => {
  await openDemo(page, 'town');
  await view(page, 'Break');
  await page.getByLabel('Scenario').first().selectOption({ label: 'The closet’s second uplink, out and in again' });
  await page.getByRole('slider', { name: 'Time' }).waitFor();
  await expect(page.getByText(/circle/).first()).toBeVisible();
});

test('ways out stand side by side; one is played, and taken over', async ({ page }) => {
  await openDemo(page, 'town');
  await view(page, 'Group');
  await page.getByRole('tab', { name: 'Ways out', exact: true }).click();
  const ways = page.getByRole('table', { name: 'Ways out, side by side' });
  await expect(ways.getByRole('row')).toHaveCount(10);
  await expect(ways.getByRole('row', { name: /made into a stack/ })).toContainText('not simulated');
  await expect(ways.getByRole('row', { name: /^RSTP at every switch, from the root/ })).toContainText('frames circle');
  await expect(ways.getByRole('row', { name: /unplugged/ })).toContainText('2, now 0');
  await page.getByRole('button', { name: 'Simulate each step' }).click();
  const steps = page.getByRole('table', { name: /^Steps: trees of VLANs/ });
  await expect(steps.getByRole('row', { name: /^2 stairs-b/ })).toContainText(/Nobody is cut off|does not reach/);
  await steps.getByRole('button', { name: 'take this step, step 1' }).click();
  await expect(page.getByRole('table', { name: 'Ways out, side by side' }).getByRole('row').nth(1)).toContainText(
    '2 settings at 1 switch',
  );
  await page.getByRole('button', { name: 'Take over the result' }).click();
  await page.getByRole('tab', { name: /^Findings/ }).click();
  await expect(page.getByText(/hears its own BPDUs there/)).toBeHidden();
  await saved(page);
});

test('conversations are listed, those that come back first, and a switch tells what it believes', async ({ page }) => {
  await openDemo(page, 'town');
  await view(page, 'Root');
  await page.getByRole('tab', { name: 'Conversations', exact: true }).click();
  await expect(page.getByText(/^Of \d+ conversations 1 comes back to the sender, and 1 rides through/)).toBeVisible();
  const grid = page.getByRole('grid', { name: 'Conversations' });
  await expect(grid.getByRole('row').nth(1)).toContainText('stairs-a, stairs-b and back');
  await grid.getByRole('gridcell', { name: 'hall-a port 3' }).first().click();
  await expect(inspector(page).getByRole('region', { name: 'BPDUs that come in' })).toBeVisible();
  await page.locator('[data-switch="hall-a"]').click();
  await expect(inspector(page).getByRole('region', { name: 'As it believes' })).toContainText(
    'VLANs 15,25,35: it is root itself. Port 3 hears itself; its cable leads to stairs-b.',
  );
  await expect(inspector(page).getByRole('region', { name: 'BPDUs that come in' })).toContainText('at hall-a port 3');
});

test('what rides around is drawn on the map beside the conversations, and a check holds a trunk whose VLANs differ', async ({
  page,
}) => {
  await openDemo(page, 'town');
  await page.getByRole('tab', { name: 'Conversations' }).click();
  await expect(page.locator('[data-ride="returns"]')).toHaveCount(3);
  await expect(page.locator('[data-shade="trees of VLANs"] rect').first()).toBeAttached();
  await expect(page.locator('[data-shade="one tree"]')).toBeVisible();
  await expect(page.locator('[data-border="no tree in common"]').first()).toBeVisible();
  await page.getByRole('tab', { name: /^Findings/ }).click();
  await expect(page.locator('[data-ride], [data-shade]')).toHaveCount(0);

  await page.getByRole('tab', { name: 'Cable', exact: true }).click();
  await page.keyboard.press('/');
  await page.getByLabel('Quick-cabling line').fill('switch archive vlan-check\nport archive 1 native 15');
  await page.getByRole('button', { name: 'Do 2 lines' }).click();
  await page.getByRole('tab', { name: /^Findings/ }).click();
  await expect(
    page.getByText('archive port 1 is held in VLANs 1,15: BPDUs of VLAN 1 arrive there in VLAN 15').first(),
  ).toBeVisible();
  await page.getByRole('tab', { name: 'Root', exact: true }).click();
  await treeRow(page, 'vlan:15').click();
  await page.getByRole('tab', { name: /^Findings/ }).click();
  await expect(page.locator('[data-guard="V"]').first()).toBeVisible();
  await page
    .getByRole('button', { name: /native VLAN 1 on archive port 1/ })
    .first()
    .click();
  await expect(page.locator('[data-guard="V"]')).toHaveCount(0);
});

test('a switch that checks for its own BPDUs holds the port at which they come back', async ({ page }) => {
  await openDemo(page, 'town');
  await view(page, 'Guard');
  await treeRow(page, 'vlan:15').click();
  await page.locator('[data-switch="hall-a"]').click();
  await inspector(page).getByLabel('Own BPDU check').selectOption('on');
  await page.getByRole('button', { name: 'hide table' }).click();
  await expect(page.locator('[data-guard="O"]')).toBeVisible();
  await page.getByRole('tab', { name: /^Findings/ }).click();
  await expect(
    page
      .getByText('hall-a port 3 is held in all VLANs: the switch hears its own BPDUs there in VLANs 15,25,35')
      .first(),
  ).toBeVisible();
  await view(page, 'Root');
  await page.getByRole('tab', { name: 'Conversations', exact: true }).click();
  await expect(page.getByRole('gridcell', { name: 'held against: its own' }).first()).toBeVisible();
});
