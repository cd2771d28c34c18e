/** Settings by hand: what is legal, what is not, and what an empty design needs. */
import { expect, test } from '@playwright/test';
import { writeDesign } from '../src/core/model/derive/write';
import { campusOf } from '../src/core/testing/campus';
import { inspector, map, openDemo, saved, selectSwitch, setSetting, settled, treeRow } from './design';

test('an illegal value keeps what was typed, says why, and offers the nearest legal ones', async ({ page }) => {
  await openDemo(page);
  await selectSwitch(page, 'ridge-a');
  await setSetting(page, 'VLAN 15', '5000');
  await expect(inspector(page).getByRole('alert')).toContainText(
    'A bridge priority is 0 to 61440 in steps of 4096; 5000 is not.',
  );
  await expect(inspector(page).getByLabel('VLAN 15', { exact: true })).toHaveValue('5000');
  await expect(treeRow(page, 'vlan:15')).toContainText('root lodge');
  await inspector(page).getByRole('button', { name: 'use 4096' }).click();
  await expect(treeRow(page, 'vlan:15')).toContainText('root ridge-a');
  await expect(inspector(page).getByRole('alert')).toHaveCount(0);

  await page.getByRole('button', { name: 'lodge port 1', exact: true }).click();
  await setSetting(page, 'Cost, VLAN 15', '0');
  await expect(inspector(page).getByRole('alert')).toContainText('A path cost is 1 to 200000000');
  await setSetting(page, 'Carries', '1,15-9');
  await expect(inspector(page)).toContainText('"15-9", which runs backwards (9-15?) at character 3');
});

test('a cost, a cut link and a trunk each move the tree, and one undo takes each back', async ({ page }) => {
  await openDemo(page);
  const status = map(page).getByRole('status');

  // ridge-b reaches lodge through ridge-a once its own link costs more than 20 000 + 2000.
  await page.getByRole('button', { name: 'ridge-b port 7', exact: true }).click();
  await setSetting(page, 'Cost, VLAN 15', '22001');
  await expect(status).toContainText('ports changed in VLAN 15');
  await expect(inspector(page)).toContainText('alternate, discarding');
  await page.keyboard.press('Escape'); // leaves the field as it is
  await page.locator('body').click({ position: { x: 640, y: 20 } });
  await page.keyboard.press('Control+z');
  await expect(inspector(page)).toContainText('root, forwarding');

  await inspector(page).getByRole('button', { name: 'the link' }).click();
  await inspector(page).getByLabel('Cable', { exact: true }).selectOption('cut');
  await expect(inspector(page)).toContainText('Disabled: the link is cut.');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(inspector(page)).not.toContainText('the link is cut');

  await page.getByRole('button', { name: 'ridge-a port 7', exact: true }).click();
  await setSetting(page, 'Carries', '1,25-65');
  await expect(inspector(page)).toContainText('not in this tree');
  await saved(page);
});

test('several trees run side by side, and keys step through them', async ({ page }) => {
  await openDemo(page);
  await page.getByLabel('draw VLAN 25 with the others').check();
  await expect(page.locator('[data-link="l3"] [data-end]')).toHaveCount(4);
  await page.locator('body').click({ position: { x: 640, y: 20 } });
  await page.keyboard.press(']');
  await expect(treeRow(page, 'vlan:25').getByRole('button')).toHaveAttribute('aria-pressed', 'true');
  await expect(treeRow(page, 'vlan:15').getByRole('button')).toHaveAttribute('aria-pressed', 'false');
  await page.keyboard.press('[');
  await expect(treeRow(page, 'vlan:15').getByRole('button')).toHaveAttribute('aria-pressed', 'true');
});

test('an empty design says what to do first and grows into a network', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'New design' }).click();
  await page.getByLabel('Name of the new design').fill('Valley station');
  await page.getByRole('button', { name: 'Create' }).click();
  await page.waitForURL(/\/designs\//);
  await expect(map(page)).toContainText('Nothing is plugged in yet');
  await page.getByRole('tab', { name: 'Cable', exact: true }).click();
  await page.getByRole('button', { name: 'Add switch' }).click();
  await expect(inspector(page)).toContainText('switch-1');
  await page.getByRole('button', { name: 'Add switch' }).click();
  await expect(inspector(page)).toContainText('switch-2');
  for (let i = 0; i < 2; i += 1) {
    await inspector(page).getByLabel('Switch at the other end').selectOption('switch-1');
    await inspector(page).getByRole('button', { name: 'Plug in' }).click();
    await expect(inspector(page)).toContainText(`switch-1 port ${i + 1}`);
  }
  await page.getByRole('tab', { name: 'Root' }).click();
  await expect(page.locator('[data-end="alternate"]')).toHaveCount(1);
  await saved(page);
  await page.reload();
  await settled(page);
  await expect(page.locator('[data-link]')).toHaveCount(2);
});

test('designs are renamed, copied, deleted and brought back', async ({ page }) => {
  const name = `Scratch ${Date.now()}`;
  await page.goto('/');
  await page.getByRole('button', { name: 'New design' }).click();
  await page.getByLabel('Name of the new design').fill(name);
  await page.getByRole('button', { name: 'Create' }).click();
  await page.waitForURL(/\/designs\//);
  await page.goto('/');
  await page.getByRole('button', { name: `Rename ${name}` }).click();
  await page.getByLabel('New name').fill(`${name} renamed`);
  await page.getByRole('button', { name: 'Rename', exact: true }).click();
  await expect(page.getByRole('link', { name: `${name} renamed` })).toBeVisible();
  await page.getByRole('button', { name: `Duplicate ${name} renamed` }).click();
  await expect(page.getByRole('link', { name: `${name} renamed (copy)` })).toBeVisible();
  await page.getByRole('button', { name: `Delete ${name} renamed`, exact: true }).click();
  await expect(page.getByRole('link', { name: `${name} renamed`, exact: true })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByRole('link', { name: `${name} renamed`, exact: true })).toBeVisible();
});

test('a switch that is dragged stays where it was put', async ({ page }) => {
  await openDemo(page);
  const lodge = page.locator('[data-switch="lodge"]');
  const before = (await lodge.boundingBox())!;
  await page.mouse.move(before.x + before.width / 2, before.y + 14);
  await page.mouse.down();
  await page.mouse.move(before.x + before.width / 2 + 30, before.y + 54, { steps: 6 });
  await page.mouse.up();
  await expect(page.getByRole('banner')).toContainText('revision 1');
  await saved(page);
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByRole('banner')).toContainText('revision 2');
  await expect.poll(async () => Math.round((await lodge.boundingBox())!.y)).toBe(Math.round(before.y));
});

test('where no switch has a place of its own, one is dragged and the others stay where they are seen', async ({
  page,
  request,
}) => {
  const document = JSON.parse(writeDesign(campusOf({ switches: 20, vlans: 4 }))) as object;
  const made = await request.post('/api/designs', { data: { do: 'import', document } });
  await page.goto(`/designs/${((await made.json()) as { id: string }).id}`);
  await settled(page);
  const middle = async (id: string): Promise<{ x: number; y: number }> => {
    const { x, y, width, height } = (await page.locator(`[data-switch="${id}"]`).boundingBox())!;
    return { x: x + width / 2, y: y + height / 2 };
  };
  const [from, other] = [await middle('core-1'), await middle('acc-9')];
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  // A busy page takes several moves for one, and the first is what begins the drag.
  for (const by of [4, 8, 12]) {
    await page.mouse.move(from.x + by, from.y + by / 2);
    await page.evaluate(() => new Promise((frame) => requestAnimationFrame(frame)));
  }
  await expect.poll(async () => (await middle('core-1')).x - from.x).toBeGreaterThan(2);
  await page.mouse.move(from.x + 80, from.y + 50, { steps: 6 });
  await expect.poll(async () => (await middle('core-1')).x - from.x).toBeGreaterThan(20);
  await page.mouse.up();
  await saved(page);
  const still = await middle('acc-9');
  expect(Math.hypot(still.x - other.x, still.y - other.y)).toBeLessThan(3);
});

test('the whole map stays in view until someone moves it, and comes into view in another layout', async ({ page }) => {
  await openDemo(page);
  const all = async (): Promise<void> => {
    await expect(async () => {
      const { x, y, width, height } = (await page.locator('.react-flow').boundingBox())!;
      const boxes = await page
        .locator('[data-switch]')
        .evaluateAll((found) =>
          found
            .map((each) => each.getBoundingClientRect())
            .map((box) => [box.left, box.top, box.right, box.bottom] as const),
        );
      expect(boxes).toHaveLength(8);
      for (const [left, top, right, bottom] of boxes)
        expect(left >= x && top >= y && right <= x + width && bottom <= y + height).toBe(true);
    }).toPass();
  };
  // Clicks on paper and on switches move nothing: the map still follows when the drawer takes its room.
  await page.locator('.react-flow__pane').click({ position: { x: 20, y: 120 } });
  await selectSwitch(page, 'lodge');
  await page.getByRole('tab', { name: 'Break' }).click();
  await all();
  await page.getByRole('button', { name: 'hung from root' }).click();
  await all();
  await selectSwitch(page, 'workshop');
  for (let i = 0; i < 8; i += 1) await page.getByRole('button', { name: 'zoom in' }).click();
  await expect(page.locator('[data-switch]')).not.toHaveCount(8);
  await page.getByRole('button', { name: 'as placed' }).click();
  await all();
});

test('the server refuses what is too large, malformed or unknown, in words', async ({ request }) => {
  const post = (data: string) =>
    request.post('/api/designs', { data: Buffer.from(data), headers: { 'content-type': 'application/json' } });
  const answers = await Promise.all([
    post('{'),
    post('{"do":"dance"}'),
    post('{"do":"create","name":"x","colour":1}'),
    post(' '.repeat(8 * 1024 * 1024 + 1)),
    request.get('/api/designs/nowhere'),
  ]);
  expect(answers.map((answer) => answer.status())).toEqual([400, 422, 422, 413, 404]);
  for (const answer of answers) expect(((await answer.json()) as { message: string }).message).toMatch(/[a-z] .*\.$/);
  const foreign = await request.post('/api/designs', {
    data: { do: 'demo' },
    headers: { origin: 'http://elsewhere.example' },
  });
  expect(foreign.status()).toBe(403);
});
