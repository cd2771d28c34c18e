import { expect, test } from '@playwright/test';
import { inspector, portTable, map, openDemo, saved, selectSwitch, setSetting, settled, treeRow } from './design';

test('an engineer reads the root, asks why, moves it, takes it back, and finds it kept', async ({ page }) => {
  await openDemo(page);

  // Who is root, and which end blocks, from the table of ports.
  await expect(treeRow(page, 'vlan:15')).toContainText('root lodge');
  await page.getByLabel('Filter ports').fill('alternate');
  await expect(portTable(page).getByRole('row')).toHaveCount(9); // the heading and eight blocked ends
  const blocked = portTable(page).getByRole('row', { name: /ridge-b 1 ridge-a port 1 alternate discarding/ });
  await expect(blocked).toContainText('20\u202f000');

  // Why does it block?
  await blocked.click();
  const why = inspector(page).getByRole('region', { name: 'Why' });
  await expect(why).toContainText(
    "ridge-a's bridge ID 32783.02:4b:00:00:00:0a is lower than ridge-b's 32783.02:4b:00:00:00:0b",
  );
  await expect(why.locator('[data-decided]').first()).toHaveAttribute('data-decided', 'designatedBridge');

  // Make ridge-a root of VLAN 15.
  await selectSwitch(page, 'ridge-a');
  await expect(inspector(page)).toContainText('lodge is root by MAC address alone');
  await setSetting(page, 'VLAN 15', '4096');
  await expect(treeRow(page, 'vlan:15')).toContainText('root ridge-a');
  await expect(treeRow(page, 'vlan:25')).toContainText('root lodge');
  await expect(inspector(page)).toContainText('ridge-a is root by priority: 4111.02:4b:00:00:00:0a');

  // The moved ends are counted, marked on the map and listed.
  await expect(map(page).getByRole('status')).toContainText('10 ports changed in VLAN 15');
  await expect(map(page).getByText('A→R', { exact: true })).toHaveCount(1);
  await map(page).getByRole('button', { name: 'list them' }).click();
  const moved = page.getByRole('grid', { name: 'Ports whose role the last change changed' });
  await expect(moved.getByRole('row')).toHaveCount(11);
  await expect(moved.getByRole('row', { name: /VLAN 15 ridge-b 1 ridge-a port 1 alternate root/ })).toBeVisible();

  // Undo and redo, by key and by button.
  await page.getByRole('tab', { name: 'Ports', exact: true }).click();
  await page.keyboard.press('Control+z');
  await expect(treeRow(page, 'vlan:15')).toContainText('root lodge');
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect(treeRow(page, 'vlan:15')).toContainText('root ridge-a');
  await saved(page);

  // It is kept, and can still be taken back after a reload.
  await page.reload();
  await settled(page);
  await expect(treeRow(page, 'vlan:15')).toContainText('root ridge-a');
  await page.keyboard.press('Control+z');
  await expect(treeRow(page, 'vlan:15')).toContainText('root lodge');
  await page.keyboard.press('Control+Shift+Z');
  await expect(treeRow(page, 'vlan:15')).toContainText('root ridge-a');
  await saved(page);
});
