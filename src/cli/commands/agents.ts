/** `knot-path agents`: simulated switches that speak real SNMP. */
import { contextOf } from '../../core/exchange/observation/snmp/write';
import { nameOf } from '../../core/model/names';
import { loadDesign, loadScenario, Unusable } from '../input';
import { credentialOf } from '../snmp/credentials';
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
  const [{ Stage }, { standIn }] = await Promise.all([import('../snmp/stage'), import('../snmp/standIn')]);
  const design = loadDesign(file);
  const credential = credentialOf(options.credentials);
  const port = number('--port', options.port, 1, 65_535);
  const speed = number('--speed', options.speed, 1, 1000);
  const addresses = loopbackFrom(options.first, design.switches.length);
  const addressOf = new Map(design.switches.map((sw, s) => [sw.id, addresses[s]!]));
  const scenario = options.scenario === undefined ? null : loadScenario(options.scenario, design);
  const stage = new Stage(
    design,
    (id) => addressOf.get(id)!,
    credential.version === '2c' ? credential.community : null,
    speed,
  );
  for (const sw of design.switches) {
    const address = addressOf.get(sw.id)!;
    standIn(
      { address, port },
      credential,
      (stage.observed(sw.id)?.trees ?? []).map(({ tree }) => contextOf(tree)),
      () => stage.agent(sw.id),
      (error) => {
        process.stderr.write(`knot-path: ${address} port ${port}: ${error.message}\n`);
        process.exit(2);
      },
    );
    say(`${address}  ${nameOf(sw)}`);
  }
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

function number(option: string, text: string, least: number, most: number): number {
  const value = Number(text);
  if (!Number.isInteger(value) || value < least || value > most)
    throw new Unusable(`${option}: found "${text}"; allowed: a whole number, ${least} to ${most}`);
  return value;
}

/** Addresses of the loopback interface alone: nobody else is spoken to. */
function loopbackFrom(first: string, count: number): string[] {
  const parts = /^127\.(\d{1,3})\.(\d{1,3})\.(\d{1,3})$/.exec(first)?.slice(1).map(Number);
  if (!parts || parts.some((part) => part > 255))
    throw new Unusable(`--first: found "${first}"; allowed: an address of the loopback interface, such as 127.1.0.1`);
  const from = parts[0]! * 65_536 + parts[1]! * 256 + parts[2]!;
  return Array.from({ length: count }, (_, i) => {
    const at = from + i;
    return `127.${at >> 16}.${(at >> 8) & 255}.${at & 255}`;
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
