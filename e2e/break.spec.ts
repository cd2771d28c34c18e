/** Pull it out and watch: a scenario by pointing, the clock, what it cost, frame paths, the frames. */
import { expect, test, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { decodeBpdu } from '../src/core/wire/bpdu';
import { decodeFrame } from '../src/core/wire/ethernet';
import { decodePcapng } from '../src/core/wire/pcapng';
import { inspector, map, openDemo, saved, portEnd, selectLink, selectSwitch } from './design';

const instant = (page: Page) => page.getByLabel('Instant', { exact: true });
const hand = (page: Page) => page.getByRole('slider', { name: 'Time' });
const end = (page: Page, link: string, side: 'a' | 'b') => page.locator(`[data-link="${link}"] [data-side="${side}"]`);
async function cutTheRootsLink(page: Page): Promise<void> {
  await openDemo(page);
  await page.getByRole('tab', { name: 'Break' }).click();
  await selectLink(page, 'l13');
  await inspector(page).getByRole('button', { name: 'Cut it', exact: true }).click();
  await hand(page).waitFor();
}

test('the root’s link is cut by pointing, the states pass, the outage is read, and any instant can be asked why', async ({
  page,
}) => {
  await cutTheRootsLink(page);
  await expect(page.getByRole('list', { name: 'What happens' })).toContainText(
    'The link ridge-a port 7 to lodge port 1 is cut',
  );
  await expect(page.getByText(/^settled at 1\.0\d\d s$/)).toBeVisible();
  await expect(instant(page)).toHaveText('0.000 s');
  const dead = page.locator('[data-link="l13"] title').filter({ hasText: 'no signal' });
  await expect(dead).toHaveCount(0);

  // On to the cut: the map shows the strands as they are at that instant.
  await page.getByRole('button', { name: 'Next change' }).click();
  await expect(instant(page)).toHaveText('1.000 s');
  await expect(dead).toHaveCount(1);
  await expect(page.locator('[data-link="l11"] [data-end="root"][data-state="forwarding"]')).toHaveCount(1);
  await page.keyboard.press('.');
  await expect(instant(page)).toHaveText(/^1\.001\s005 s$/);
  await expect(page.locator('[data-link="l3"] [data-end="designated"][data-state="discarding"]')).toHaveCount(1);

  // Why is ridge-a's port to the workshop what it is, here and before?
  await portEnd(page, 'ridge-a port 6').click();
  const here = inspector(page).getByRole('region', { name: 'At this instant' });
  await expect(here).toContainText('root, forwarding');
  await expect(here).toContainText('Since 1.000 s: signal came or went.');
  await hand(page).focus();
  await page.keyboard.press('Home');
  await expect(here).toContainText('alternate, discarding');
  await expect(here).toContainText('It has been so from the start.');

  await page.getByRole('tab', { name: 'Outages' }).click();
  await expect(page.getByText(/directed pairs of hosts were cut off: the longest for/)).toContainText(/1\.00\d ms/);
  await page.getByRole('tab', { name: 'Order of events' }).click();
  await page
    .getByRole('button', { name: /^1\.000 s ridge-a: port 6, alternate until now, is root port and forwards at once/ })
    .click();
  await page.getByRole('tab', { name: 'Timeline' }).click();
  await expect(instant(page)).toHaveText('1.000 s');
});

test('a scenario is kept with the design, played, found after a reload, and says so when its link is gone', async ({
  page,
}) => {
  await cutTheRootsLink(page);
  await page.getByRole('button', { name: 'keep with the design' }).click();
  await page.getByLabel('Name of the scenario').fill('Pulled by hand');
  await page.getByRole('button', { name: 'keep it' }).click();
  await saved(page);
  await page.reload();
  await page.getByRole('tab', { name: 'Break' }).click();
  await page.getByLabel('Scenario').first().selectOption({ label: 'Pulled by hand' });
  await hand(page).waitFor();
  await page.getByRole('button', { name: '×10', exact: true }).click();
  await expect(instant(page)).toHaveText('60.000 s', { timeout: 15_000 });

  await selectLink(page, 'l13');
  await inspector(page).getByRole('button', { name: 'Unplug this cable' }).click();
  const fault = page.getByRole('list', { name: 'What happens' }).getByRole('alert');
  await expect(fault).toContainText('There is no link l13 any more.');
  await fault.getByRole('button', { name: /^take .* instead$/ }).click();
  await hand(page).waitFor();
  await expect(page.getByRole('list', { name: 'What happens' }).getByRole('alert')).toHaveCount(0);
});

test('classic beside rapid: collars fill for half a minute, and the table says what that costs', async ({ page }) => {
  test.slow();
  await openDemo(page);
  await page.getByRole('tab', { name: 'Break' }).click();
  await page.getByLabel('Scenario').first().selectOption({ label: "The root's link to ridge-a is cut" });
  await hand(page).waitFor();
  await page.getByRole('tab', { name: 'Side by side' }).click();
  await page.getByRole('button', { name: 'Run it in every mode' }).click();
  const row = (name: string) => page.getByRole('row', { name: new RegExp(`^${name}`) });
  await row('Per-VLAN rapid').waitFor({ timeout: 30_000 });
  await expect(row('Per-VLAN rapid')).toContainText('1.005 ms');
  await expect(row('Classic STP')).toContainText(/29 s/);

  // All switches set to classic: the run follows, and ports listen and learn.
  await page.keyboard.press('Escape');
  await page.getByRole('tab', { name: 'Cable', exact: true }).click();
  await page.locator('body').press('Control+a');
  await inspector(page).getByLabel('Spanning tree mode').selectOption('Per-VLAN classic');
  await page.getByRole('tab', { name: 'Break' }).click();
  await expect(page.getByText(/settled at (2\d|30)\.\d+ s|still moving/)).toBeVisible({ timeout: 15_000 });
  await hand(page).focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.locator('[data-state="listening"]').first()).toBeAttached();
  await expect(
    page
      .getByRole('listitem')
      .filter({ hasText: /^ridge-a 6/ })
      .getByRole('img'),
  ).toHaveAttribute('aria-label', /root listening; from 16\.000 s root learning/);
});

test('a frame is followed at any instant, and the frames of a link are listed and saved', async ({ page }) => {
  await cutTheRootsLink(page);
  await page.getByRole('tab', { name: 'Frame paths' }).click();
  await page.getByLabel('From host').selectOption('camera-recorder');
  await page.getByLabel('To host').selectOption('image-store');
  const way = page.getByRole('tabpanel').getByRole('status');
  await expect(way).toHaveText(
    /Camera recorder → 6 dome-north 1 → 3 ridge-a 7 → 1 lodge 2 → 7 ridge-b image-store-cards → Image store/,
  );
  await expect(map(page).locator('[data-followed]')).toHaveCount(3);
  for (let i = 0; i < 12; i += 1) await page.keyboard.press('.');
  await expect(way).not.toContainText('lodge');
  await expect(
    page
      .getByRole('table', { name: 'Reachability' })
      .getByText(/another way/)
      .first(),
  ).toBeVisible();
  await expect(page.getByRole('region', { name: 'Without spanning tree' })).toContainText(/more than 1.000.000 frames/);

  await page.getByRole('tab', { name: 'Frames', exact: true }).click();
  await selectLink(page, 'l3');
  await expect(page.getByText(/on the selected link/)).toBeVisible();
  await page.getByRole('grid', { name: 'Frames' }).getByRole('gridcell', { name: 'RST' }).first().click();
  await expect(page.getByRole('table', { name: 'Fields' })).toContainText('Root path cost');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: /^save these as a capture/ }).click();
  const file = await (await download).path();
  const capture = decodePcapng(Uint8Array.from(readFileSync(file)));
  if (!capture.ok) throw new Error(capture.error);
  expect(capture.value.interfaces).toEqual(['ridge-a 3 = dome-north 1']);
  expect(capture.value.frames.length).toBeGreaterThan(100);
  for (const { octets } of capture.value.frames) {
    const frame = decodeFrame(octets);
    expect(frame.ok && decodeBpdu(frame.value.bpdu).ok).toBe(true);
  }
});

test('a new switch is plugged in while the clock runs, and takes its place on the map', async ({ page }) => {
  await openDemo(page);
  await selectLink(page, 'l10');
  await inspector(page).getByRole('button', { name: 'Unplug this cable' }).click();
  await page.getByRole('tab', { name: 'Break' }).click();
  await selectSwitch(page, 'array-hut');
  await inspector(page).getByRole('button', { name: 'A new switch is plugged into port 2' }).click();
  await hand(page).waitFor();
  await expect(map(page).locator('[data-switch="newcomer-1"]')).toBeVisible();
  await hand(page).focus();
  await page.keyboard.press('End');
  await expect(
    end(page, 'l16', 'a')
      .or(end(page, 'l10', 'a'))
      .first(),
  ).toBeAttached();
  await page.getByRole('tab', { name: 'Order of events' }).click();
  await expect(page.getByRole('list', { name: 'Order of events' })).toContainText(
    'A new switch, newcomer-1, is plugged in with 1 cable.',
  );
});
