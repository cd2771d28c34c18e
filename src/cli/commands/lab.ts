/** `knot-path lab`: a design built here of real switches. */
import { writeFileSync } from 'node:fs';
import { Option } from 'commander';
import { differenceText } from '../../core/exchange/lab/judge';
import { LAB_SYSTEMS, labTree, type LabSystem } from '../../core/exchange/lab/labDesign';
import type { LabResult, LabRound } from '../../core/exchange/lab/result';
import { counted } from '../../core/base/words';
import { actionKind } from '../../core/model/actions/actions';
import { nameOf } from '../../core/model/names';
import type { Design } from '../../core/model/document';
import { problemText } from '../../core/model/problem';
import type { SwitchId, TreeId } from '../../core/model/ids';
import type { Scenario } from '../../core/model/scenario';
import { actionText, afterAction, scenarioDesign } from '../../core/sim/scenario/scenario';
import { treesOf } from '../../core/topology/trees';
import { loadDesign, loadScenario, Unusable } from '../input';
import { RunningLab } from '../lab/lab';
import { Failed, isThere } from '../lab/run';
import { simulate } from '../lab/simulated';
import { keep, newLab, standingLabs, takeAway, type Lab } from '../lab/standing';
import { unable } from '../lab/systems';
import type { Verb } from '../verb';

interface Options {
  readonly with?: LabSystem;
  readonly tree?: string;
  readonly join?: string;
  readonly scenario?: string;
  readonly keep?: boolean;
  readonly out?: string;
}

const say = (line: string): void => void process.stdout.write(`${line}\n`);
const sleep = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

async function runLab(file: string, options: Options): Promise<void> {
  // Not mandatory for the parser: `lab stop` has none.
  const kind = options.with;
  if (!kind) throw new Unusable(`--with: found nothing; allowed: ${LAB_SYSTEMS.join(', ')}`);
  const given = loadDesign(file);
  const scenario = options.scenario === undefined ? null : playable(options.scenario, given);
  const design = scenario ? withArrivals(given, scenario, options.scenario!) : given;
  const tree = treeToBuild(design, options.tree);
  const joined = switchesToJoin(design, options.join);
  const why = unable(kind) ?? (joined.size > 0 && !isThere('socat') ? 'socat is not here, which carries frames' : null);
  if (why !== null) throw new Unusable(`no lab of ${kind} can be built here: ${why}`);
  if (design.switches.length === 0) throw new Unusable(`${file}: there is no switch to build`);
  const lab = newLab();
  const leave = (): void => takeAway(lab);
  const interrupted = (): void => (leave(), process.exit(130));
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.once(signal, interrupted);
  try {
    const running = new RunningLab(lab, design, kind, tree, { joined });
    for (const sentence of running.leftOut) say(`left out: ${sentence}`);
    const at = new Date().toISOString();
    running.build();
    const rounds = await play(running, design, scenario);
    const result: LabResult = {
      format: 'knot-path-lab',
      version: 1,
      name: design.name,
      with: kind,
      tree,
      at,
      leftOut: [...running.leftOut],
      ...(joined.size > 0 ? { simulated: [...joined] } : {}),
      rounds,
    };
    for (const note of running.notes) say(`not understood: ${note}`);
    if (options.out !== undefined) writeResult(options.out, result);
    if (options.keep) {
      keep(lab);
      tellShells(running, lab);
    }
    process.exitCode = rounds.some(({ differences }) => differences.length > 0) ? 1 : 0;
  } catch (error) {
    if (error instanceof Failed) throw new Unusable(error.message);
    throw error;
  } finally {
    for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.removeListener(signal, interrupted);
    if (!options.keep || process.exitCode === undefined) leave();
  }
}

/** A scenario of which everything can be done to real switches. */
function playable(file: string, design: Design): Scenario {
  const scenario = loadScenario(file, design);
  scenario.actions.forEach((action, i) => {
    const { mute, open, members } = actionKind(action).happens(action);
    if (mute ?? open ?? members)
      throw new Unusable(
        `${file}: actions[${i}]: found ${action.do}; allowed: what can be done to real switches (cables, ports, power, settings)`,
      );
  });
  return { ...scenario, actions: [...scenario.actions].sort((a, b) => a.at - b.at) };
}

function withArrivals(design: Design, scenario: Scenario, file: string): Design {
  const all = scenarioDesign(design, scenario);
  if (!all.ok) throw new Unusable(`${file}: ${problemText(all.error)}`);
  return all.value;
}

function treeToBuild(design: Design, asked: string | undefined): TreeId | null {
  if (asked === undefined) return labTree(design);
  const trees = treesOf(design);
  if (!trees.includes(asked as TreeId))
    throw new Unusable(
      `--tree: found "${asked}"; allowed: ${trees.join(', ') || 'none, since no switch runs spanning tree'}`,
    );
  return asked as TreeId;
}

/** By ids or names, with commas between. */
function switchesToJoin(design: Design, asked = ''): Set<SwitchId> {
  const joined = asked
    .split(',')
    .map((name) => name.trim())
    .filter(Boolean)
    .map((name) => {
      const found = design.switches.find((sw) => sw.id === name) ?? design.switches.find((sw) => sw.name === name);
      if (!found)
        throw new Unusable(`--join: found "${name}"; allowed: ${design.switches.map(({ id }) => id).join(', ')}`);
      return found.id;
    });
  if (joined.length > 0 && joined.length === design.switches.length)
    throw new Unusable('--join: found every switch; allowed: some of them, since one at least is to be real');
  return new Set(joined);
}

/** Waits for the network to come to what we say; does what the scenario says; waits again. */
async function play(running: RunningLab, design: Design, scenario: Scenario | null): Promise<LabRound[]> {
  const rounds = [await round(running, 'Built, and powered on')];
  if (!scenario || scenario.actions.length === 0) return rounds;
  const start = Date.now();
  let now = design;
  for (const action of scenario.actions) {
    await sleep(start + action.at * 1000 - Date.now());
    say(`${action.at} s: ${actionText(now, action)}.`);
    now = afterAction(now, action);
    running.follow(now);
  }
  return [...rounds, await round(running, scenario.actions.map((action) => actionText(design, action)).join('; '))];
}

/** Until two readings in a row have nothing that differs, or too long. */
async function round(running: RunningLab, after: string): Promise<LabRound> {
  const start = Date.now();
  const longest = patience(running.design);
  let agreed = false;
  for (;;) {
    const { differences, compared } = running.judge();
    const seconds = Math.round((Date.now() - start) / 100) / 10;
    if ((differences.length === 0 && agreed) || seconds > longest) {
      say(
        differences.length === 0
          ? `${after}: after ${seconds} s all ${compared} things are as we say.`
          : `${after}: after ${seconds} s ${counted(differences.length, 'thing')} of ${compared} ${differences.length === 1 ? 'is' : 'are'} otherwise than we say:`,
      );
      for (const difference of differences) say(`  ${differenceText(difference)}`);
      return { after, seconds, compared, differences: [...differences] };
    }
    agreed = differences.length === 0;
    await sleep(1000);
  }
}

/** Seconds in which every network comes to rest: what is old has died, two forward delays, what slow LACP takes, a busy machine. */
function patience({ switches }: Design): number {
  const longest = (of: 'maxAge' | 'forwardDelay'): number => Math.max(...switches.map(({ timers }) => timers[of]));
  return longest('maxAge') + 2 * longest('forwardDelay') + 40;
}

function writeResult(file: string, result: LabResult): void {
  try {
    writeFileSync(file, `${JSON.stringify(result, null, 2)}\n`);
  } catch (error) {
    throw new Unusable(`${file}: cannot be written (${(error as NodeJS.ErrnoException).code ?? 'unknown'})`);
  }
}

function tellShells({ design, wiring }: RunningLab, { id }: Lab): void {
  say('It stands. Shells:');
  for (const host of design.hosts) say(`  ip netns exec ${wiring.hosts.get(host.id)!} sh    # ${host.name ?? host.id}`);
  for (const sw of design.switches)
    if (wiring.switches.get(sw.id) !== wiring.simulated)
      say(`  ip netns exec ${wiring.switches.get(sw.id)!} sh    # ${nameOf(sw)}`);
  say(`Taken away by: knot-path lab stop ${id}`);
}

function stopLabs(id: string | undefined): void {
  const standing = standingLabs();
  const wanted = id === undefined ? standing : standing.filter((lab) => lab.id === id);
  if (id !== undefined && wanted.length === 0)
    throw new Unusable(
      `lab stop: found "${id}"; allowed: ${standing.map((lab) => lab.id).join(', ') || 'none: no lab stands here'}`,
    );
  for (const lab of wanted) takeAway(lab);
  say(wanted.length === 0 ? 'No lab stands here.' : `${counted(wanted.length, 'lab')} taken away.`);
}

export const labCommand: Verb = (program) => {
  const lab = program
    .command('lab')
    .description(
      'builds the design here of real open-source switches, in network namespaces of its own, and says where they do otherwise than we say; 1 where they do',
    )
    .argument('<file>', 'design document, - for standard input')
    .addOption(new Option('--with <switches>', "the kernel's bridge, or Open vSwitch").choices(LAB_SYSTEMS))
    .option('--tree <id>', 'the tree to build; the common one where it is not said')
    .option(
      '--join <switches>',
      'switches that stay in our simulator, cabled to the real ones: ids with commas between',
    )
    .option('--scenario <file>', 'what happens when, as JSON, once it has settled')
    .option('--keep', 'leaves it standing, with a shell for each host and switch')
    .option('--out <file>', 'what was found, as JSON, for the workbench')
    .action(runLab);
  lab
    .command('stop')
    .description('takes a lab that was kept away, or all of them')
    .argument('[id]', 'as --keep told it')
    .action(stopLabs);
  lab.command('simulate', { hidden: true }).argument('<folder>').action(simulate);
};
