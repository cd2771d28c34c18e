/** Fourteen things that a newcomer wants to do, each by what the screen says alone: visible labels, names and texts. */
import { expect, test, type Page } from '@playwright/test';
import { inspector, map, saved } from './design';

const view = (page: Page, name: string) => page.getByRole('tab', { name, exact: true }).click();
const tableOf = (page: Page, name: RegExp | string) =>
  page
    .getByRole('tablist', { name: 'Tables' })
    .getByRole('tab', { name, exact: typeof name === 'string' })
    .click();
const onMap = (page: Page, name: string, more = false) =>
  map(page)
    .getByText(name, { exact: true })
    .first()
    .click({ modifiers: more ? ['Control'] : [] });
const line = async (page: Page, text: string) => {
  await page.getByPlaceholder(/^Cable in words/).fill(text);
  await page.keyboard.press('Enter');
};

test('fourteen tasks, from a loop of three switches to comparing two revisions', async ({ page }) => {
  test.setTimeout(120_000);
  const trees = page.getByRole('navigation', { name: 'Trees' });

  await test.step('1. begin a design with a tree for each VLAN', async () => {
    await page.goto('/');
    await page.getByRole('button', { name: 'New design' }).click();
    await page.getByLabel('Name of the new design').fill('North dome');
    await page.getByText('Per-VLAN rapid', { exact: true }).click();
    await page.getByRole('button', { name: 'Create' }).click();
    await expect(inspector(page)).toContainText('Cable: What is plugged into what');
  });
  await test.step('2. cable a loop of three switches', async () => {
    await page.getByPlaceholder(/^Cable in words/).fill('a 1 = b 1');
    await expect(page.getByText('will add switch a, b')).toBeVisible();
    await page.keyboard.press('Enter');
    await line(page, 'b 2 = c 1');
    await line(page, 'c 2 = a 2');
    await expect(inspector(page)).toContainText('3 switches, 3 links');
  });
  await test.step('3. add VLANs by a range', async () => {
    await tableOf(page, 'VLANs');
    await page.getByPlaceholder('IDs, such as 60-79').fill('10-13');
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await expect(trees).toContainText('13 root a');
  });
  await test.step('4. see who is root and which port blocks', async () => {
    await view(page, 'Root');
    await expect(trees).toContainText('root a');
    await page.getByPlaceholder(/^Filter, such as dome/).fill('alternate');
    await expect(page.getByRole('row', { name: /alternate discarding/ })).toHaveCount(1);
  });
  await test.step('5. ask a blocked port why', async () => {
    // The table may still be settling in when the first click comes.
    await expect(async () => {
      await page.getByRole('row', { name: /alternate discarding/ }).click();
      await expect(inspector(page)).toContainText('Alternate:', { timeout: 2000 });
    }).toPass();
  });
  await test.step('6. make another switch root, and undo it', async () => {
    await onMap(page, 'c');
    await tableOf(page, 'Roots');
    await page.getByRole('button', { name: 'Root', exact: true }).last().click();
    await expect(trees).toContainText('root c');
    await page.getByRole('button', { name: 'Undo', exact: true }).click();
    await expect(trees).not.toContainText('root c');
  });
  await test.step('7. make two switches a pair of roots', async () => {
    await onMap(page, 'a');
    await onMap(page, 'b', true);
    await inspector(page).getByLabel('Trees by').selectOption('odd and even');
    await inspector(page).getByRole('button', { name: 'Make them roots' }).click();
    await expect(trees).toContainText('root b');
    await expect(trees).toContainText('standby b');
    await map(page).getByRole('button', { name: 'and for VLANs to come' }).click();
  });
  await test.step('8. let another port block', async () => {
    await view(page, 'Steer');
    await tableOf(page, 'Ports');
    await page.getByPlaceholder(/^Filter, such as dome/).fill('c alternate');
    const blocked = page.getByRole('row', { name: /alternate discarding/ }).first();
    const before = await blocked.textContent();
    await page.getByPlaceholder(/^Filter, such as dome/).fill('designated');
    await page
      .getByRole('row', { name: / [ab] \d c port/ })
      .first()
      .click();
    await inspector(page).getByRole('button', { name: 'Propose ways to block here' }).click();
    await inspector(page)
      .getByRole('button', { name: /^take it/ })
      .first()
      .click();
    await expect(map(page).getByText(/ports? changed in/)).toBeVisible();
    await page.getByPlaceholder(/^Filter, such as dome/).fill('alternate');
    await expect(page.getByRole('row', { name: /alternate discarding/ }).first()).not.toHaveText(before!);
  });
  await test.step('9. bundle two links', async () => {
    await view(page, 'Cable');
    await line(page, 'a 3-4 = b 3-4');
    await view(page, 'Bundle');
    await page.getByRole('row', { name: /not bundled/ }).click();
    await inspector(page).getByRole('button', { name: 'Bundle these' }).click();
    await expect(inspector(page)).toContainText('Up:');
  });
  await test.step('10. set both its ends by the matrix', async () => {
    await tableOf(page, 'Modes');
    await page.getByRole('button', { name: /^single ports: set a passive, b passive/ }).click();
    await expect(inspector(page)).toContainText('Down:');
    await page.getByRole('button', { name: 'Undo', exact: true }).click();
    await expect(inspector(page)).toContainText('Up:');
  });
  await test.step('11. hang hosts, and follow a frame between them', async () => {
    await view(page, 'Cable');
    await line(page, 'host east = a 9 vlan 10');
    await line(page, 'host west = c 9 vlan 10');
    await view(page, 'Break');
    await tableOf(page, 'Frame paths');
    await page.getByLabel('From host').selectOption('east');
    await page.getByLabel('To host').selectOption('west');
    await expect(page.getByRole('tabpanel')).toContainText('A frame from');
  });
  await test.step('12. cut the power of a switch, and read who was cut off', async () => {
    await onMap(page, 'b');
    await inspector(page).getByRole('button', { name: 'Loses power' }).click();
    await tableOf(page, 'Timeline');
    await expect(page.getByText(/settled at/)).toBeVisible();
    await tableOf(page, 'Outages');
    await expect(page.getByRole('tabpanel')).toContainText(/Nobody was cut off|directed pairs of hosts were cut off/);
  });
  await test.step('13. go over to MSTP, all switches at once, and assign VLANs', async () => {
    await view(page, 'Group');
    await page.keyboard.press('Escape');
    await inspector(page).getByLabel('Spanning tree mode').selectOption('MSTP');
    await tableOf(page, 'Board');
    await page.getByLabel('VLANs to assign').fill('12-13');
    await page.getByRole('button', { name: /^to a new instance/ }).click();
    await expect(trees).toContainText('MSTI');
  });
  await test.step('14. compare the first revision with now', async () => {
    await saved(page);
    await tableOf(page, 'History');
    await page.getByPlaceholder(/^Filter, such as priority/).fill('cabled a');
    await page
      .getByRole('button', { name: /with now$/ })
      .last()
      .click();
    await expect(page.getByRole('grid', { name: 'Settings that differ' })).toContainText('MSTP');
    await page.getByRole('button', { name: 'Done comparing' }).click();
  });
});
