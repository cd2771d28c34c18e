/** A network that is there is read, drawn and watched from the workbench: simulated switches that speak real SNMP. */
import { spawn, type ChildProcess } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { fernhollow } from '../src/core/demo/demos';
import { writeDesign } from '../src/core/model/derive/write';
import { inspector, openDemo } from './design';

const running: ChildProcess[] = [];
test.afterEach(() => {
  for (const child of running.splice(0)) child.kill();
});

/** The demo's switches, once they answer. */
async function standIns(net: number): Promise<ChildProcess> {
  const file = test.info().outputPath('demo.knot.json');
  writeFileSync(file, writeDesign(fernhollow()));
  const child = spawn(
    process.execPath,
    ['dist/cli/knot-path.cjs', 'agents', file, '--credentials', 'look', '--first', `127.${net}.0.1`, '--port', '11611'],
    {
      stdio: ['pipe', 'pipe', 'inherit'],
      env: { ...process.env, KNOT_PATH_CREDENTIALS_LOOK: JSON.stringify({ version: '2c', community: 'look' }) },
    },
  );
  running.push(child);
  await new Promise<void>((done) =>
    child.stdout!.on('data', (said: Buffer) => said.toString().includes('They answer') && done()),
  );
  return child;
}

async function fillSource(page: Page, form: string, net: number): Promise<void> {
  const fields = page.getByRole('form', { name: form });
  await fields.getByLabel('Addresses').fill(`127.${net}.0.1`);
  await fields.getByLabel('Neighbours in').fill(`127.${net}.0.0/16`);
  await fields.getByLabel('Asked by').selectOption('look');
  await fields.getByLabel('Port', { exact: true }).fill('11611');
}

test('a network is read from one address, drawn, and is what its switches say', async ({ page }) => {
  await standIns(41);
  await openDemo(page);
  await page.getByRole('tab', { name: 'Observe', exact: true }).click();
  await fillSource(page, 'Read the network', 41);
  await page.getByRole('button', { name: 'Read the network' }).click();
  await expect(page.getByText(/8 switches read, \d+ things compared: all is as designed/)).toBeVisible();
  await page.getByRole('tab', { name: 'Predicted', exact: true }).click();
  await expect(page.getByText(/What the settings come to is what the switches say/)).toBeVisible();
  await page.getByRole('tab', { name: 'Held against', exact: true }).click();
  await page.getByRole('button', { name: 'draw it as a new design' }).click();
  await page.waitForURL((url) => !url.href.includes('undefined') && url.pathname.startsWith('/designs/'));
  await expect(inspector(page).getByRole('heading', { name: 'Observed network' })).toBeVisible();
  await expect(inspector(page)).toContainText('8 switches, 15 links');
});

test('nobody outside of what was named is asked, and who does not answer is said', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('tab', { name: 'Observe', exact: true }).click();
  const form = page.getByRole('form', { name: 'Read the network' });
  await form.getByLabel('Addresses').fill('no address');
  await form.getByLabel('Neighbours in').fill('127.42');
  await page.getByRole('button', { name: 'Read the network' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'Neighbours in: wanted are networks' })).toBeVisible();
  await fillSource(page, 'Read the network', 42);
  await page.getByRole('button', { name: 'Read the network' }).click();
  await expect(page.getByText('127.42.0.1: it does not answer.')).toBeVisible();
});

test('a watch sees a cable pulled, says so, and shows the instant on the map', async ({ page }) => {
  const switches = await standIns(43);
  await openDemo(page);
  await page.getByRole('tab', { name: 'Observe', exact: true }).click();
  await page.getByRole('tab', { name: 'Watch', exact: true }).click();
  await fillSource(page, 'Watch', 43);
  const form = page.getByRole('form', { name: 'Watch' });
  await form.getByLabel('Every').fill('5');
  await form.getByLabel('Rules, one a line').fill('more than two');
  await form.getByRole('button', { name: 'Watch it' }).click();
  await expect(form.getByRole('alert')).toContainText('found "more than two"; allowed: rules such as');
  await form.getByLabel('Rules, one a line').fill('more than 1 topology changes in an hour');
  await form.getByRole('button', { name: 'Watch it' }).click();
  await expect(page.getByText(/Watched every 5 s: 1 reading kept/)).toBeVisible();

  switches.stdin!.write('1');
  const events = page.getByRole('table', { name: 'What happened' });
  await expect(events.getByRole('button', { name: 'lodge port1 has lost its signal.' })).toBeVisible();
  await expect(page.getByText(/Rule: more than 1 topology changes in an hour/).first()).toBeVisible();
  // In any view there is a notice, which leads here.
  await page.getByRole('tab', { name: 'Root', exact: true }).click();
  await page.getByRole('button', { name: 'what happened' }).click();

  await events.getByRole('button', { name: 'lodge port1 has lost its signal.' }).click();
  await expect(page.getByText(/Looking at the network as it was read at/)).toBeVisible();
  await expect(inspector(page).getByRole('heading', { name: /^lodge/ })).toBeVisible();
  // Its time is played as a run's is: back to before, and on to the change.
  const band = page.getByRole('region', { name: 'Band of time' });
  await expect(band.getByRole('img', { name: /^lodge port1|^topology changes: at/ }).first()).toBeVisible();
  const instant = page.getByRole('status', { name: 'Instant' });
  const then = await instant.textContent();
  await page.getByRole('button', { name: 'To the start' }).click();
  await expect(instant).not.toHaveText(then!);
  await page.getByRole('button', { name: 'by change' }).click();
  await expect(instant).toHaveText(then!);
  await page.getByRole('group', { name: 'Play' }).getByRole('button', { name: 'Pause' }).click();
  await page.getByRole('button', { name: 'go back to now' }).last().click();
  await expect(page.getByText(/Looking at the network as it was read at/)).toBeHidden();

  await page.getByRole('button', { name: 'stop watching' }).click();
  await expect(page.getByText(/Not watched now: \d+ readings kept/)).toBeVisible();
  await page.reload();
  await page.getByRole('tab', { name: 'Observe', exact: true }).click();
  await page.getByRole('tab', { name: 'Watch', exact: true }).click();
  await expect(page.getByText(/Not watched now: \d+ readings kept/)).toBeVisible();
});

test('a demo is watched with no hardware', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('tab', { name: 'Observe', exact: true }).click();
  await page.getByRole('tab', { name: 'Watch', exact: true }).click();
  await page.getByRole('button', { name: 'watch a demo, with no hardware' }).click();
  await expect(page.getByText(/Watched every 5 s: \d+ readings? kept/)).toBeVisible();
  await page.getByRole('button', { name: 'stop watching' }).click();
  await expect(page.getByText(/Not watched now/)).toBeVisible();
});
