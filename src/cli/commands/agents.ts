/** `knot-path agents`: simulated switches that speak real SNMP. */
import type { Design } from '../../core/model/document';
import { nameOf } from '../../core/model/names';
import { loadDesign, loadScenario, valueOf, wholeOf } from '../input';
import { credentialOf } from '../../snmp/credentials';
import type { Stage } from '../../snmp/stage';
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
  if (scenario) stage.play(scenario);
  setInterval(() => {
    for (const line of stage.tick()) say(`${line}.`);
  }, 100);
  hearKeys(design, stage);
}

/** A digit begins a scenario of the design; 0 makes everything as it was. */
function hearKeys(design: Design, stage: Stage): void {
  const own = design.scenarios.slice(0, 9);
  if (own.length === 0) return;
  say(`Keys: ${own.map(({ name }, i) => `${i + 1} ${name}`).join('; ')}; 0 everything as designed again.`);
  if (process.stdin.isTTY) process.stdin.setRawMode(true);
  process.stdin.on('data', (typed: Buffer) => {
    for (const key of typed.toString()) {
      if (key === '\u0003') process.exit(0);
      if (key === '0') stage.restore();
      const scenario = own[Number(key) - 1];
      if (scenario) stage.play(scenario);
      if (key === '0' || scenario) say(scenario ? `Begins: ${scenario.name}.` : 'Everything is as designed again.');
    }
  });
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
