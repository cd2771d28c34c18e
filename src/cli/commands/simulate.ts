/** `knot-path simulate`. */
import type { Verb } from '../verb';
import type { Ending, PortInTree, Run, TraceEntry } from '../../core/sim/run';
import { MOST_FRAMES } from '../../core/sim/trace/sentLog';
import { renameSync, rmSync, writeFileSync } from 'node:fs';
import { captureOf } from '../../core/sim/report/capture';
import { MOST_COPIES } from '../../core/sim/traffic/loops';
import { simulate } from '../../core/sim/simulate';
import { compileNetwork } from '../../core/topology/network';
import { encodePcapng } from '../../core/wire/pcapng';
import { Unusable, loadDesign, loadScenario } from '../input';

interface Options {
  readonly scenario: string;
  readonly json?: boolean;
  readonly seed?: string;
  readonly fromBoot?: boolean;
  readonly capture?: string;
}

function runSimulate(file: string, options: Options): void {
  const design = loadDesign(file);
  const scenario = loadScenario(options.scenario, design);
  const run = simulate(design, scenario, {
    seed: seedOf(options.seed),
    fromBoot: options.fromBoot === true || scenario.fromBoot,
    mostFrames: options.capture === undefined ? 0 : MOST_FRAMES,
    ...(process.stderr.isTTY ? { progress: tellProgress() } : {}),
  });
  if (process.stderr.isTTY) process.stderr.write('\r\x1b[K');
  if (!run.ok) throw new Unusable(`${file}: ${run.error}`);
  const { trace, outages, storms, settledAt, ending, restlessBefore, final, design: ran, trees } = run.value;
  if (options.capture !== undefined)
    writeWhole(options.capture, encodePcapng(captureOf(compileNetwork(ran, null, []), trees, run.value)));
  for (const note of notes(run.value, options.capture !== undefined)) process.stderr.write(`knot-path: ${note}\n`);
  process.stdout.write(
    options.json
      ? `${JSON.stringify({ trace, outages, storms, settledAt, ending, restlessBefore, final })}\n`
      : runText(run.value),
  );
}

/** What the answer leaves out. */
function notes({ stopped, events, sent, unfollowed, restlessBefore }: Run, captured: boolean): string[] {
  return [
    ...(restlessBefore
      ? [
          `the network never came to rest before the scenario began${restlessBefore.length === 0 ? '' : `; these went on changing: ${portsText(restlessBefore)}`}`,
        ]
      : []),
    ...(stopped ? [`stopped after ${events} events, before the scenario's end`] : []),
    ...(captured && sent.left > 0 ? [`the capture leaves out the last ${sent.left} frames`] : []),
    ...(unfollowed > 0 ? [`${unfollowed} pairs of hosts are not followed: there are too many`] : []),
  ];
}

/** Tells a person at a terminal how far a long run is, once a second; Ctrl+C ends it and leaves nothing behind. */
function tellProgress(): (share: number) => boolean {
  let told = Date.now();
  return (share) => {
    if (Date.now() - told > 1000) {
      told = Date.now();
      process.stderr.write(`\rrunning the protocols, ${Math.round(share * 100)} %`);
    }
    return true;
  };
}

/** Writes a file beside its place and then into it: it is never there half-written. */
function writeWhole(file: string, bytes: Uint8Array): void {
  const beside = `${file}.${process.pid}.part`;
  try {
    writeFileSync(beside, bytes);
    renameSync(beside, file);
  } catch (error) {
    rmSync(beside, { force: true });
    throw new Unusable(`${file}: cannot be written (${(error as NodeJS.ErrnoException).code ?? 'unknown'})`);
  }
}

function seedOf(text: string | undefined): number {
  if (text === undefined) return 1;
  if (!/^\d{1,9}$/.test(text))
    throw new Unusable(`--seed: found "${text}"; allowed: a whole number from 0 to 999999999`);
  return Number(text);
}

const seconds = (t: number): string => `${t.toFixed(3)} s`;

const portsText = (ports: readonly PortInTree[]): string =>
  ports.map(({ switch: sw, port, tree }) => `${sw} port ${port} in ${tree}`).join(', ');

function endingText(ending: Ending, settledAt: number | null): string {
  switch (ending.kind) {
    case 'rests':
      return `settled at ${seconds(settledAt ?? 0)}`;
    case 'stopped':
      return 'not settled at the end: stopped';
    case 'moves':
      return `not settled at the end: still moving, at rest from ${seconds(ending.at)} on`;
    case 'restless':
      return `not settled at the end: it never comes to rest${ending.ports.length === 0 ? '' : `; these go on changing: ${portsText(ending.ports)}`}`;
  }
}

function runText({ trace, outages, storms, settledAt, ending }: Run): string {
  const entry = ({ t, switch: sw, port, tree, from, to, role }: TraceEntry): string =>
    `${seconds(t).padStart(12)}  ${tree.padEnd(9)} ${sw} port ${port}: ${from} to ${to}, ${role}`;
  const lines = [
    ...trace.map(entry),
    '',
    ...outages.map(
      ({ from, to, vlan, start, end, cause }) =>
        `${from} to ${to}, VLAN ${vlan}: cut off from ${seconds(start)} ${end === null ? 'to the end' : `to ${seconds(end)}, ${Math.round((end - start) * 1000)} ms`} (${cause})`,
    ),
    ...storms.map(
      ({ vlan, start, end, links, copies, heldTo, flapping, endless }) =>
        `${endless ? 'storm' : 'broadcasts come back, or twice,'} in VLAN ${vlan} from ${seconds(start)} ${end === null ? 'to the end' : `to ${seconds(end)}`} on ${links.join(', ')}: one broadcast is ${copies}${copies >= MOST_COPIES ? ' or more' : ''} frames${endless ? ' after two dozen hops' : ''}${heldTo === null ? '' : `, held to ${heldTo} a second by a storm limit`}${flapping.map(({ switch: sw, ports: at }) => `; ${sw} learns addresses by turns at ports ${at.join(', ')}`).join('')}`,
    ),
    endingText(ending, settledAt),
  ];
  return `${lines.join('\n')}\n`;
}

/** `knot-path simulate`. */
export const simulateCommand: Verb = (program) =>
  void program
    .command('simulate')
    .description('what happens in a scenario: every change of state, who is cut off, where it settles')
    .argument('<file>', 'design document, - for standard input')
    .requiredOption('--scenario <file>', 'what happens when, as JSON')
    .option('--seed <number>', 'moves the hellos of the switches against each other')
    .option('--from-boot', 'all switches powered on at once at 0, instead of settled')
    .option('--capture <file>', 'every frame sent, as pcapng')
    .option('--json', 'as JSON')
    .action(runSimulate);
