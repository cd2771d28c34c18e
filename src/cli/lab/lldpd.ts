/** The open-source lldpd in a real switch of a lab: whom the switch sees at its ports. */
import { spawn } from 'node:child_process';
import { mkdirSync, writeFileSync } from 'node:fs';
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
  ['lldpd', 'lldpcli', AS_WE_ARE[0]].every((name) => isThere(name) || isThere(`/usr/sbin/${name}`));

/** Its client is installed to go on as another user, who may not come to the lab's folder: that does not happen then. */
const AS_WE_ARE = ['setpriv', '--no-new-privs'] as const;

/** `name`: what it says of itself. */
export function startLldpd(name: string, { namespace, folder }: Place): void {
  mkdirSync(folder, { recursive: true });
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
  spawn('ip', ['netns', 'exec', namespace, ...AS_WE_ARE, 'lldpd', ...args], {
    detached: true,
    stdio: 'ignore',
  }).unref();
}

/** None where it does not answer yet. */
export function readLldpd({ folder }: Place): NeighbourReading[] {
  let text: string;
  try {
    text = run(AS_WE_ARE[0], [AS_WE_ARE[1], 'lldpcli', '-u', socketIn(folder), '-f', 'json', 'show', 'neighbors']);
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
