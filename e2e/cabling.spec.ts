import { expect, test, type Page } from '@playwright/test';
import { createDesign, inspector, map, openDemo, saved, selectSwitch, settled } from './design';

const line = (page: Page) => page.getByLabel('Quick-cabling line');
const boxOf = (page: Page, name: string) => page.locator(`[data-switch="${name}"]`);
const centre = async (page: Page, name: string) => {
  const box = (await boxOf(page, name).boundingBox())!;
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
};
const cables = (page: Page) => page.getByRole('grid', { name: 'Cables' });

test('an empty design is cabled from nothing to a triangle with two hosts', async ({ page }) => {
  await createDesign(page, 'From nothing');
  await expect(map(page)).toContainText('Nothing is plugged in yet');
  await page.keyboard.press('/');
  await expect(line(page)).toBeFocused();

  // The line says what it will do before it does it.
  await page.keyboard.type('ridge-a 1-2 = ridge-b 1-2 10G');
  await expect(page.getByLabel('Quick cabling')).toContainText('will add switch ridge-a, ridge-b');
  await page.keyboard.press('Enter');
  await settled(page);
  await page.keyboard.type('hut = rid');
  await expect(page.getByRole('option', { name: /ridge-a/ })).toBeVisible();
  await page.keyboard.press('Tab');
  await expect(line(page)).toHaveValue('hut = ridge-a ');
  await page.keyboard.type('+ ridge-b');
  await page.keyboard.press('Enter');
  await expect(line(page)).toHaveValue('');

  // A fault points at its place and keeps what was typed.
  await page.keyboard.type('host desk = ridge-a 1 vlan 45');
  await expect(page.getByLabel('Quick cabling')).toContainText(
    'port 1 of ridge-a is taken: ridge-b port 1 is plugged in there',
  );
  await page.keyboard.press('Enter');
  await expect(line(page)).toHaveValue('host desk = ridge-a 1 vlan 45');
  await line(page).fill('host desk = ridge-a 9 vlan 45\nhost store = ridge-b 9,10 vlan 45 10G\nvlan 45 "Office"');
  await page.getByRole('button', { name: 'Do 3 lines' }).click();
  await expect(cables(page).getByRole('row')).toHaveCount(5);
  await page.getByRole('tab', { name: 'Hosts' }).click();
  await expect(page.getByRole('row', { name: /store 45 Office ridge-b port 9 and ridge-b port 10/ })).toBeVisible();
  await saved(page);
  await page.reload();
  await settled(page);
  await expect(page.locator('[data-link]')).toHaveCount(4);
  await expect(map(page)).toContainText('desk');
});

test('cables are pulled from port to port, from a switch to empty paper, and to another port', async ({ page }) => {
  await createDesign(page, 'By pointer');
  await page.getByRole('tab', { name: 'Cable', exact: true }).click();
  await line(page).fill('switch a,b core');
  await line(page).press('Enter');
  await settled(page);
  await line(page).fill('port a 1-2 10G\nport b 1-2 10G');
  await line(page).press('Enter');
  await selectSwitch(page, 'a');

  const free = page.getByRole('group', { name: 'free ports of a' });
  const pull = async (from: { x: number; y: number }, to: { x: number; y: number }) => {
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move(from.x + 12, from.y + 9);
    await page.mouse.move(to.x, to.y, { steps: 4 });
  };
  const middleOf = async (name: string) => {
    const box = (await free.getByRole('button', { name }).boundingBox())!;
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  };
  await pull(await middleOf('2'), await centre(page, 'b'));
  // The switch under the hand shows its own free ports to drop on.
  const there = (await page
    .getByRole('group', { name: 'free ports of b' })
    .getByRole('button', { name: '2' })
    .boundingBox())!;
  await page.mouse.move(there.x + 4, there.y + 4, { steps: 3 });
  await page.mouse.up();
  await expect(cables(page)).toContainText('a port 2');
  await expect(cables(page).getByRole('row', { name: /a port 2 b port 2 up 10 Gb\/s/ })).toBeVisible();
  await expect(inspector(page)).toContainText('a port 2 to b port 2');

  // Onto empty paper: a new switch.
  await selectSwitch(page, 'a');
  const at = await centre(page, 'a');
  await pull(await middleOf('new cable'), { x: at.x + 10, y: at.y + 210 });
  await page.mouse.up();
  await expect(boxOf(page, 'switch-1')).toBeVisible();
  await expect(cables(page).getByRole('row')).toHaveCount(3);

  // An end of a cable is moved to another switch.
  const end = (await page.getByRole('button', { name: 'b port 2', exact: true }).boundingBox())!;
  await pull({ x: end.x + 4, y: end.y + 5 }, await centre(page, 'switch-1'));
  await page.mouse.up();
  await expect(cables(page).getByRole('row', { name: /a port 2 switch-1 port 2/ })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(cables(page).getByRole('row', { name: /a port 2 b port 2/ })).toBeVisible();
});

test('several things are set at once, copied, pasted and removed', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('tab', { name: 'Cable', exact: true }).click();
  await page.getByLabel('Filter cables').fill('lodge');
  await page.getByRole('button', { name: 'select these' }).click();
  const links = inspector(page).getByRole('region', { name: 'Settings of the selected links' });
  await expect(links.getByLabel('Speed')).toHaveValue('1 Gb/s');
  await links.getByLabel('Carries').fill('1,15-5');
  await links.getByLabel('Carries').press('Enter');
  await expect(links).toContainText('15-5');
  await expect(links.getByLabel('Carries')).toHaveValue('1,15-5');
  await links.getByLabel('Carries').fill('1,55');
  await links.getByLabel('Carries').press('Enter');
  await page.getByLabel('Filter cables').fill('');
  await expect(
    cables(page).getByRole('row', { name: /lodge port \d up 1 Gb\/s trunk 1,55, native 1 trunk 1,55/ }),
  ).toHaveCount(3);

  // Values that differ are called several.
  await page.getByRole('button', { name: 'select all' }).click();
  await expect(links.getByLabel('Speed')).toHaveAttribute('placeholder', 'several');
  await expect(links.getByLabel('Carries')).toHaveAttribute('placeholder', 'several');

  // A block of switches over the clipboard: numbered names beside the originals.
  await selectSwitch(page, 'dome-east');
  await boxOf(page, 'array-hut').click({ modifiers: ['Control'] });
  await expect(inspector(page).getByRole('heading', { level: 2 })).toHaveText('2 switches selected');
  await page.context().grantPermissions(['clipboard-read', 'clipboard-write']);
  await page.keyboard.press('Control+c');
  await expect(page.getByText('Copied.')).toBeVisible();
  await page.keyboard.press('Control+v');
  await expect(boxOf(page, 'dome-east-2')).toBeVisible();
  await expect(boxOf(page, 'array-hut-2')).toBeVisible();
  await expect(page.getByText('16 cables')).toBeVisible();
  await page.getByRole('button', { name: 'in a row' }).click();
  await expect(page.getByRole('button', { name: 'Undo', exact: true })).toHaveAttribute('title', /moved 2 switches/);
  await page.keyboard.press('Delete');
  await expect(boxOf(page, 'dome-east-2')).toHaveCount(0);
  await page.keyboard.press('Control+a');
  await expect(inspector(page).getByRole('heading', { level: 2 })).toHaveText('8 switches selected');
  await saved(page);
});

test('by keyboard: the palette, travel over the map, power, layouts', async ({ page }) => {
  await openDemo(page);
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Find an action or an object' }).fill('workshop');
  await page.keyboard.press('Enter');
  await expect(inspector(page).getByRole('heading', { level: 2 })).toHaveText('workshop');

  // Along a cable: switch, port, far end, switch.
  await page.getByRole('application', { name: /Map of the network/ }).focus();
  const said = page.getByRole('status', { name: 'Selection' });
  await page.keyboard.press('ArrowRight');
  await expect(said).toContainText('workshop port 1, to ridge-a port 6');
  await page.keyboard.press('ArrowRight');
  await expect(said).toContainText('ridge-a port 6, to workshop port 1');
  await page.keyboard.press('ArrowRight');
  await expect(said).toHaveText('switch ridge-a');

  await page.keyboard.press('o');
  await expect(boxOf(page, 'ridge-a')).toContainText('no power');
  await expect(inspector(page).getByLabel('Power')).toHaveValue('off');
  await page.keyboard.press('Control+z');
  await expect(boxOf(page, 'ridge-a')).not.toContainText('no power');

  // Hung from the root: the root on top, its neighbours in the band below.
  await page.keyboard.press('h');
  await expect(page.locator('[data-band]')).toHaveCount(4);
  await expect.poll(async () => (await centre(page, 'lodge')).y < (await centre(page, 'ridge-b')).y - 40).toBe(true);
  await page.keyboard.press('h');
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Find an action or an object' }).fill('tidy tier');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Undo', exact: true })).toHaveAttribute('title', /moved 8 switches/);
  await expect.poll(async () => (await centre(page, 'ridge-a')).y < (await centre(page, 'lodge')).y - 100).toBe(true);
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toContainText('Travel from switch to port to far end');
  await page.keyboard.press('Escape');

  // What is chosen in the palette leaves the cabling line as it was; Escape leaves the line, and keys hold again.
  await page.keyboard.press('/');
  const line = page.getByRole('textbox', { name: 'Quick-cabling line' });
  await expect(line).toBeFocused();
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Find an action or an object' }).fill('write into');
  await page.keyboard.press('Enter');
  await expect(line).toBeFocused();
  await expect(line).toHaveValue('');
  await page.keyboard.press('Escape');
  await expect(line).not.toBeFocused();
  await page.keyboard.press('r');
  await expect(said).toHaveText('switch lodge');
  await expect(page.getByRole('application', { name: /Map of the network/ })).toBeFocused();
});
