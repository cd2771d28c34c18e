/** The open-source lldpd in a real switch of a lab: whom the switch sees at its ports. */
import { spawn } from 'node:child_process';
import { chmodSync, mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { readLldp } from '../../core/exchange/neighbours/lldp';
import type { NeighbourReading } from '../../core/exchange/readings/reading';
import { Failed, isThere, run } from './run';
import type { Place } from './systems';

/** Seconds between what it says. */
const TX_INTERVAL = 2;
/** Short, as paths of sockets have to be. */
const socketIn = (folder: string): string => path.join(folder, 'lldp');

export const hasLldpd = (): boolean =>
  ['lldpd', 'lldpcli'].every((name) => isThere(name) || isThere(`/usr/sbin/${name}`));

/** `name`: what it says of itself. */
export function startLldpd(name: string, { namespace, folder }: Place): void {
  mkdirSync(folder, { recursive: true });
  // It and its client go on without root's rights.
  chmodSync(path.dirname(folder), 0o711);
  const config = path.join(folder, 'lldpd.conf');
  writeFileSync(
    config,
    [
      `configure system hostname "${name}"`,
      'configure lldp portidsubtype ifname',
      `configure lldp tx-interval ${TX_INTERVAL}`,
      '',
    ].join('\n'),
  );
  const args = ['-d', '-u', socketIn(folder), '-I', 'port*', '-O', config];
  spawn('ip', ['netns', 'exec', namespace, 'lldpd', ...args], { detached: true, stdio: 'ignore' }).unref();
}

/** None where it does not answer yet. */
export function readLldpd({ folder }: Place): NeighbourReading[] {
  let text: string;
  try {
    text = run('lldpcli', ['-u', socketIn(folder), '-f', 'json', 'show', 'neighbors']);
  } catch (error) {
    if (error instanceof Failed) return [];
    throw error;
  }
  const read = readLldp(text, 'here');
  if (!read.ok) return [];
  return read.value.observed.map(({ port, device, devicePort }) => ({
    interface: port,
    system: device,
    port: devicePort ?? '',
  }));
}
