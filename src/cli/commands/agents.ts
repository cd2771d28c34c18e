/** `knot-path agents`: simulated switches that speak real SNMP. */
import { nameOf } from '../../core/model/names';
import { loadDesign, loadScenario, valueOf, wholeOf } from '../input';
import { credentialOf } from '../../snmp/credentials';
import type { Verb } from '../verb';

interface Options {
  readonly first: string;
  readonly port: string;
  readonly credentials: string;
  readonly scenario?: string;
  readonly speed: string;
}

const say = (line: string): void => void process.stdout.write(`${line}\n`);

async function runAgents(file: string, options: Options): Promise<void> {
  // Loaded only here: the library is large.
  const { loopbackFrom, startStandIns } = await import('../../snmp/standIns');
  const design = loadDesign(file);
  const credential = valueOf('--credentials', credentialOf(options.credentials));
  const port = wholeOf('--port', options.port, 1, 65_535);
  const scenario = options.scenario === undefined ? null : loadScenario(options.scenario, design);
  const { stage, addresses } = startStandIns(design, {
    addresses: valueOf('--first', loopbackFrom(options.first, design.switches.length)),
    ...{ port, credential, speed: wholeOf('--speed', options.speed, 1, 1000) },
    failed: (address, error) => {
      process.stderr.write(`knot-path: ${address} port ${port}: ${error.message}\n`);
      process.exit(2);
    },
  });
  for (const sw of design.switches) say(`${addresses.get(sw.id)!}  ${nameOf(sw)}`);
  say(`They answer at port ${port}, until they are interrupted.`);
  let done = 0;
  if (!scenario) return;
  const inOrder = { ...scenario, actions: [...scenario.actions].sort((a, b) => a.at - b.at) };
  setInterval(() => {
    const said = stage.follow(inOrder, done);
    done += said.length;
    for (const line of said) say(`${line}.`);
  }, 100);
}

export const agentsCommand: Verb = (program) =>
  void program
    .command('agents')
    .description('simulated switches that speak real SNMP, each at a loopback address of its own, to read and to watch')
    .argument('<file>', 'design document, - for standard input')
    .requiredOption('--credentials <name>', 'what they are asked by: a name in the file of credentials')
    .option('--first <address>', 'of the first switch; the others follow', '127.1.0.1')
    .option('--port <number>', 'at which all of them answer', '1161')
    .option('--scenario <file>', 'what happens when, as JSON')
    .option('--speed <times>', 'how many seconds pass there in one of ours', '1')
    .action(runAgents);
