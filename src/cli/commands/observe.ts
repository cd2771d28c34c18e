/** `knot-path observe`. */
import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import { counted } from '../../core/base/words';
import { observedInFiles } from '../../core/exchange/observation/files/read';
import { MAX_FILE, tooLarge } from '../../core/exchange/text';
import type { Observation } from '../../core/exchange/observation/observation';
import { valueOf, wholeOf, Unusable } from '../input';
import { writeAll } from '../output';
import { sourceOf, withSource, type SourceOptions } from '../source';
import type { Verb } from '../verb';

interface Options extends SourceOptions {
  readonly files?: string;
  readonly output: string;
  readonly most: string;
  readonly atOnce: string;
  readonly timeout: string;
  readonly force?: boolean;
}

async function runObserve(addresses: readonly string[], options: Options): Promise<void> {
  if (options.files !== undefined) {
    if (addresses.length > 0) throw new Unusable('--files: allowed: files, or addresses, one of the two');
    keep(valueOf('--files', observedInFiles(filesBelow(options.files), new Date().toISOString())), options);
    return;
  }
  if (addresses.length === 0) throw new Unusable('found no address; allowed: addresses of switches, or --files');
  // Loaded only here: the library is large.
  const { readNetwork } = await import('../../snmp/reader');
  const interrupt = new AbortController();
  const stop = (): void => interrupt.abort();
  process.once('SIGINT', stop);
  const observation = await readNetwork(
    {
      ...sourceOf(addresses, options),
      most: wholeOf('--most', options.most, 1, 5000),
      atOnce: wholeOf('--at-once', options.atOnce, 1, 100),
      timeout: wholeOf('--timeout', options.timeout, 1, 60_000),
    },
    interrupt.signal,
    {
      read: (sw, done) =>
        process.stderr.write(
          `${done} read: ${sw.name || sw.source}${sw.missing.length > 0 ? `, ${counted(sw.missing.length, 'thing')} missing` : ''}\n`,
        ),
      failed: (address, why) => process.stderr.write(`${address}: ${why}\n`),
    },
  );
  process.removeListener('SIGINT', stop);
  keep(observation, options);
}

/** All files below a directory, by their paths in it. */
function filesBelow(directory: string): { name: string; text: string }[] {
  if (!existsSync(directory) || !statSync(directory).isDirectory())
    throw new Unusable(`--files: ${directory} is no directory`);
  return readdirSync(directory, { recursive: true, withFileTypes: true })
    .filter((each) => each.isFile())
    .map((each) => path.join(each.parentPath, each.name))
    .sort()
    .map((file) => {
      const { size } = statSync(file);
      if (size > MAX_FILE) throw new Unusable(`${file}: ${tooLarge(size)}`);
      return { name: path.relative(directory, file).split(path.sep).join('/'), text: readFileSync(file, 'utf8') };
    });
}

function keep({ ...observation }: Observation, { output, force = false }: Options): void {
  const { switches, leftOut } = observation;
  if (switches.length === 0) throw new Unusable(`nobody was read: ${leftOut.join(' ')}`);
  const text = `${JSON.stringify(observation, null, 1)}\n`;
  writeAll(path.dirname(output), new Map([[path.basename(output), text]]), force);
  process.stdout.write(
    `${counted(switches.length, 'switch', 'switches')} read${leftOut.length > 0 ? `, ${leftOut.length} left out` : ''}.\n`,
  );
}

export const observeCommand: Verb = (program) =>
  void withSource(
    program
      .command('observe')
      .description(
        'reads the switches that are there by SNMP, and keeps what they tell as one file; writes nothing to them',
      )
      .argument('[address...]', 'switches to ask'),
  )
    .option('--files <directory>', 'what switches have written of themselves, in place of asking: a folder for each')
    .requiredOption('-o, --output <file>', 'where to write what they tell')
    .option('--most <count>', 'most that are asked', '500')
    .option('--at-once <count>', 'how many are asked at once', '8')
    .option('--timeout <ms>', 'how long one answer may take', '2000')
    .option('--force', 'replaces a file of that name')
    .action(runObserve);
