/** `knot-path watch`: reads a network again and again, and says what happens in it. */
import { ofWatch, WatchState } from '../../core/exchange/observation/watch/watch';
import { asDesigned, UNDESIGNED } from '../../core/exchange/observation/watch/asDesigned';
import { readRule } from '../../core/exchange/observation/watch/rules';
import type { WatchEvent } from '../../core/exchange/observation/watch/events';
import { syslogField, webhookField } from '../../core/exchange/observation/asked';
import { loadDesign, valueOf, wholeOf } from '../input';
import { Journal } from '../journal';
import { checked, sourceOf, withSource, type SourceOptions } from '../source';
import type { Verb } from '../verb';

interface Options extends SourceOptions {
  readonly every: string;
  readonly rule: readonly string[];
  readonly design?: string;
  readonly webhook?: string;
  readonly syslog?: string;
  readonly keep?: string;
  readonly days: string;
  readonly mib: string;
}

async function runWatch(addresses: readonly string[], options: Options): Promise<void> {
  // Loaded only here: the library is large.
  const [{ watchNetwork }, { notify }] = await Promise.all([import('../../snmp/watcher'), import('../../snmp/notify')]);
  const source = sourceOf(addresses, options);
  const webhook = options.webhook === undefined ? null : checked('--webhook', webhookField, options.webhook);
  const syslog = options.syslog === undefined ? null : checked('--syslog', syslogField, options.syslog);
  const every = wholeOf('--every', options.every, 5, 3600);
  const design = options.design === undefined ? null : loadDesign(options.design);
  const rules = options.rule.map((text) => ({ text, rule: valueOf('--rule', readRule(text)) }));
  const [days, mib] = [wholeOf('--days', options.days, 1, 3650), wholeOf('--mib', options.mib, 1, 100_000)];
  const journal = options.keep === undefined ? null : new Journal(options.keep, days, mib);
  const last = journal?.last() ?? null;
  const state = new WatchState(rules, last?.observation ?? null, journal?.events() ?? []);
  journal?.begin();
  const interrupt = new AbortController();
  for (const signal of ['SIGINT', 'SIGTERM']) process.once(signal, () => interrupt.abort());
  const tell = (events: readonly WatchEvent[], at: number): void => {
    for (const { text } of events) process.stdout.write(`${new Date(at).toISOString()} ${text}\n`);
    void notify({ webhook, syslog }, design?.name ?? addresses[0]!, events, at).then((why) => {
      if (why !== null) process.stderr.write(`knot-path: ${why}\n`);
    });
  };
  const say = (event: WatchEvent, at: number): void => {
    journal?.say([event], at);
    tell([event], at);
  };
  if (last && Date.now() - last.at > 2 * every * 1000)
    say(ofWatch('missed', `Nobody watched since ${new Date(last.at).toISOString()}.`), Date.now());
  let isFirst = true;
  await watchNetwork({ ...source, most: 1000, atOnce: 8, timeout: 2000 }, every, interrupt.signal, {
    polled(observation, at) {
      if (isFirst) process.stderr.write(`${observation.switches.length} read, and again every ${every} s.\n`);
      isFirst = false;
      const was = state.observation;
      const events = state.take(observation, at, design ? asDesigned(() => design, observation) : UNDESIGNED);
      journal?.keep(was, observation, events, at);
      tell(events, at);
    },
    missed: (text, at) => say(ofWatch('missed', text), at),
  });
}

export const watchCommand: Verb = (program) =>
  void withSource(
    program
      .command('watch')
      .description('reads the switches that are there again and again, and says what happens, until it is interrupted')
      .argument('<address...>', 'switches to ask'),
  )
    .option('--every <seconds>', 'from one reading to the next, 5 to 3600', '30')
    .option('--rule <text>', 'when to speak up: "root of VLAN 15 is not ridge-a"; as often as wanted', also, [])
    .option('--design <file>', 'what rules about designs and intents are held against')
    .option('--webhook <address>', 'where events go as JSON')
    .option('--syslog <host>', 'where events go as syslog: a host, or a host and a port')
    .option('--keep <file>', 'where readings and events are kept, to go on from')
    .option('--days <count>', 'how long they are kept', '30')
    .option('--mib <count>', 'how much is kept', '200')
    .action(runWatch);

const also = (text: string, before: readonly string[]): readonly string[] => [...before, text];
