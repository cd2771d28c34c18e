/** What a watch of the command line keeps: a file of lines, readings as what has changed, and events. */
import { appendFileSync, existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { parseJson } from '../core/base/json';
import { z } from '../core/base/zod';
import type { Observation } from '../core/exchange/observation/observation';
import { watchEventSchema, type WatchEvent } from '../core/exchange/observation/watch/events';
import { keptOf, keptSchema, readAgain } from '../core/exchange/observation/watch/kept';
import { Unusable } from './input';

const lineSchema = z.union([
  z.object({ at: z.number(), reading: keptSchema }),
  z.object({ at: z.number(), event: watchEventSchema }),
]);
type Line = z.output<typeof lineSchema>;

/** Readings from one that is kept whole to the next. */
const WHOLE_EVERY = 200;
const MIB = 1024 * 1024;

export class Journal {
  private readonly file: string;
  private readonly days: number;
  private readonly mib: number;
  private since = WHOLE_EVERY;
  private lines: Line[];

  constructor(file: string, days: number, mib: number) {
    this.file = file;
    this.days = days;
    this.mib = mib;
    this.lines = existsSync(file) ? linesIn(file) : [];
  }

  /** The last reading, and the events before; null where there is none. */
  last(): { readonly at: number; readonly observation: Observation } | null {
    const readings = this.lines.flatMap((line) => ('reading' in line ? [line] : []));
    const newest = readings.at(-1);
    const again = readAgain(
      readings.map(({ reading }) => reading),
      new Date(newest?.at ?? 0).toISOString(),
    );
    return newest && again ? { at: newest.at, observation: again } : null;
  }

  events(): readonly { readonly at: number; readonly event: WatchEvent }[] {
    return this.lines.flatMap((line) => ('event' in line ? [line] : []));
  }

  /** Lets go of what is in memory once it has been asked. */
  begin(): void {
    this.prune(Date.now());
    this.lines = [];
  }

  keep(before: Observation | null, now: Observation, events: readonly WatchEvent[], at: number): void {
    const isWhole = this.since >= WHOLE_EVERY || before === null;
    this.since = isWhole ? 0 : this.since + 1;
    this.append([{ at, reading: keptOf(isWhole ? null : before, now) }, ...events.map((event) => ({ at, event }))]);
    if (isWhole && existsSync(this.file)) {
      this.lines = linesIn(this.file);
      this.prune(at);
      this.lines = [];
    }
  }

  say(events: readonly WatchEvent[], at: number): void {
    this.append(events.map((event) => ({ at, event })));
  }

  private append(lines: readonly Line[]): void {
    appendFileSync(this.file, lines.map((line) => `${JSON.stringify(line)}\n`).join(''), { mode: 0o600 });
  }

  /** What is older, or more, than is to be kept goes, up to a whole reading. */
  private prune(now: number): void {
    const wholes = this.lines.flatMap((line, i) => ('reading' in line && line.reading.whole ? [i] : []));
    const old = wholes.findLast((i) => this.lines[i]!.at <= now - this.days * 86_400_000);
    const sizes = this.lines.map((line) => JSON.stringify(line).length + 1);
    let from = old ?? 0;
    const size = (): number => sizes.slice(from).reduce((sum, each) => sum + each, 0);
    while (size() > this.mib * MIB) {
      const next = wholes.find((i) => i > from);
      if (next === undefined) break;
      from = next;
    }
    if (from === 0) return;
    const text = this.lines.slice(from).map((line) => `${JSON.stringify(line)}\n`);
    // In one step, whatever happens meanwhile.
    writeFileSync(`${this.file}.part`, text.join(''), { mode: 0o600 });
    renameSync(`${this.file}.part`, this.file);
  }
}

/** The last line may have been cut off by an end of power; another that cannot be read is another program's. */
function linesIn(file: string): Line[] {
  const texts = readFileSync(file, 'utf8')
    .split('\n')
    .filter((text) => text !== '');
  return texts.flatMap((text, i): Line[] => {
    const json = parseJson(text);
    const read = json.ok ? lineSchema.safeParse(json.value) : null;
    if (read?.success) return [read.data];
    if (i === texts.length - 1) return [];
    throw new Unusable(`${file}: line ${i + 1} is no part of a watch`);
  });
}
