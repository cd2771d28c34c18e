/** `knot-path observe`. */
import path from 'node:path';
import { counted } from '../../core/base/words';
import type { Observation, ObservedSwitch } from '../../core/exchange/observation/observation';
import { Unusable } from '../input';
import { writeAll } from '../output';
import { credentialOf } from '../snmp/credentials';
import { withinOf } from '../snmp/within';
import type { Verb } from '../verb';

interface Options {
  readonly credentials: string;
  readonly output: string;
  readonly port: string;
  readonly within?: string;
  readonly most: string;
  readonly atOnce: string;
  readonly timeout: string;
  readonly force?: boolean;
}

async function runObserve(addresses: readonly string[], options: Options): Promise<void> {
  // Loaded only here: the library is large.
  const { NotRead, readSwitch } = await import('../snmp/session');
  const credential = credentialOf(options.credentials);
  const [port, most, atOnce, timeout] = [
    whole('--port', options.port, 65_535),
    whole('--most', options.most, 5000),
    whole('--at-once', options.atOnce, 100),
    whole('--timeout', options.timeout, 60_000),
  ];
  for (const address of addresses)
    if (!/^\d{1,3}(\.\d{1,3}){3}$/.test(address) && !/^[a-z0-9.-]+$/i.test(address))
      throw new Unusable(`found "${address}"; allowed: addresses or names of switches`);
  // Who was not named is asked only inside of what was.
  const isNamed = options.within === undefined ? () => false : withinOf(options.within);
  const interrupt = new AbortController();
  const isOver = (): boolean => interrupt.signal.aborted;
  const stop = (): void => interrupt.abort();
  process.once('SIGINT', stop);
  const waiting = [...new Set(addresses)];
  const known = new Set(waiting);
  const switches: ObservedSwitch[] = [];
  const leftOut: string[] = [];
  const byMac = new Map<string, string>();
  const ask = async (address: string): Promise<void> => {
    try {
      const sw = await readSwitch({ address, port, credential, timeout, retries: 1 }, isOver);
      const twin = sw.mac === null ? undefined : byMac.get(sw.mac);
      if (twin !== undefined) {
        leftOut.push(`${address}: it is the switch that answers at ${twin}, too.`);
        return;
      }
      if (sw.mac !== null) byMac.set(sw.mac, address);
      switches.push(sw);
      process.stderr.write(
        `${switches.length} read: ${sw.name || address}${sw.missing.length > 0 ? `, ${counted(sw.missing.length, 'thing')} missing` : ''}\n`,
      );
      for (const { address: next, system } of sw.neighbours) {
        if (next === null || known.has(next)) continue;
        known.add(next);
        if (!isNamed(next))
          leftOut.push(`${system ?? next} (${next}): it is outside of what was named, and was not asked.`);
        else if (known.size > most) leftOut.push(`${system ?? next} (${next}): ${most} are asked at most.`);
        else waiting.push(next);
      }
    } catch (error) {
      if (!(error instanceof NotRead)) throw error;
      leftOut.push(`${address}: ${error.message}.`);
      process.stderr.write(`${address}: ${error.message}\n`);
    }
  };
  const asker = async (): Promise<void> => {
    for (;;) {
      const address = isOver() ? undefined : waiting.shift();
      if (address !== undefined) {
        busy += 1;
        await ask(address);
        busy -= 1;
      } else if (busy === 0) return;
      else await new Promise((done) => setTimeout(done, 10));
    }
  };
  let busy = 0;
  await Promise.all(Array.from({ length: atOnce }, asker));
  process.removeListener('SIGINT', stop);
  if (isOver()) leftOut.push('It was stopped before all were asked.');
  if (switches.length === 0) throw new Unusable(`nobody was read: ${leftOut.join(' ')}`);
  const observation: Observation = {
    format: 'knot-path-observation',
    version: 1,
    at: new Date().toISOString(),
    switches: switches.sort((a, b) => (a.name < b.name ? -1 : a.name > b.name ? 1 : 0)),
    leftOut,
  };
  writeAll(
    path.dirname(options.output),
    new Map([[path.basename(options.output), `${JSON.stringify(observation, null, 1)}\n`]]),
    options.force ?? false,
  );
  process.stdout.write(
    `${counted(switches.length, 'switch', 'switches')} read${leftOut.length > 0 ? `, ${leftOut.length} left out` : ''}.\n`,
  );
}

function whole(option: string, text: string, most: number): number {
  const value = Number(text);
  if (!Number.isInteger(value) || value < 1 || value > most)
    throw new Unusable(`${option}: found "${text}"; allowed: a whole number, 1 to ${most}`);
  return value;
}

export const observeCommand: Verb = (program) =>
  void program
    .command('observe')
    .description(
      'reads the switches that are there by SNMP, and keeps what they tell as one file; writes nothing to them',
    )
    .argument('<address...>', 'switches to ask')
    .requiredOption('--credentials <name>', 'what they are asked by: a name in the file of credentials')
    .requiredOption('-o, --output <file>', 'where to write what they tell')
    .option('--within <networks>', 'neighbours in these are asked, too: 192.0.2.0/24,198.51.100.0/25')
    .option('--port <number>', 'at which they answer', '161')
    .option('--most <count>', 'most that are asked', '500')
    .option('--at-once <count>', 'how many are asked at once', '8')
    .option('--timeout <ms>', 'how long one answer may take', '2000')
    .option('--force', 'replaces a file of that name')
    .action(runObserve);
