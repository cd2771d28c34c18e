/** What cabling lines do to a design: commands, and what is wrong where. Nothing is changed. */
import type { Command } from '../edit/commands';
import { editAll } from '../edit/edit';
import { MAX_COMMANDS } from '../model/limits';
import type { Design } from '../model/document';
import { problemText } from '../model/problem';
import { isMaking, planMaking } from './making';
import { parseLine } from './parse';
import { Planner } from './planner';
import type { Statement } from './statement';
import type { LineFault } from './tokens';

/** What one line does, or why it does nothing. */
export interface PlannedLine {
  /** Counted from 0. */
  readonly line: number;
  readonly commands: readonly Command[];
  readonly fault: LineFault | null;
}

export interface Plan {
  /** Lines that say something. */
  readonly lines: readonly PlannedLine[];
  /** All of it as one step; to be used only where no line has a fault. */
  readonly commands: readonly Command[];
  readonly faults: number;
}

/** Most lines that are taken at once. */
export const MOST_LINES = 5000;

/** Takes one statement after the other. */
class Taking {
  private design: Design;
  private planner: Planner;
  /** What has been planned on the design. */
  private since: Command[] = [];

  constructor(design: Design) {
    this.design = design;
    this.planner = new Planner(design);
  }

  take(statement: Statement): Omit<PlannedLine, 'line'> {
    if (!isMaking(statement)) {
      const made = this.planner.take(statement);
      this.since.push(...made.commands);
      return made;
    }
    const before = editAll(this.design, this.since);
    const made = before.ok ? planMaking(before.value.design, statement) : null;
    const after = before.ok && made ? editAll(before.value.design, made.commands) : before;
    if (!after.ok) return { commands: [], fault: { ...statement.names[0]!, message: problemText(after.error) } };
    this.design = after.value.design;
    this.planner = new Planner(this.design);
    this.since = [];
    return made!;
  }
}

/** Plans every line on what the lines before it leave. */
export function planLines(design: Design, text: string): Plan {
  const lines = text.replace(/\r\n?/g, '\n').split('\n');
  const taking = new Taking(design);
  const planned: PlannedLine[] = [];
  let changes = 0;
  for (let i = 0; i < Math.min(lines.length, MOST_LINES); i += 1) {
    const parsed = parseLine(lines[i]!);
    if (parsed.ok && parsed.value.statement === null) continue;
    const made = parsed.ok ? taking.take(parsed.value.statement!) : { commands: [], fault: parsed.error };
    changes += made.commands.length;
    if (changes > MAX_COMMANDS) {
      planned.push({
        line: i,
        commands: [],
        fault: {
          at: 0,
          length: Math.max(1, lines[i]!.length),
          message: `with this line these are ${changes} changes; ${MAX_COMMANDS} at once are the most: take the lines before it first, or shorten its ranges`,
        },
      });
      break;
    }
    planned.push({ line: i, commands: made.commands, fault: made.fault });
  }
  if (lines.length > MOST_LINES) {
    planned.push({
      line: MOST_LINES,
      commands: [],
      fault: { at: 0, length: 1, message: `${MOST_LINES} lines at once are the most` },
    });
  }
  return {
    lines: planned,
    commands: planned.flatMap((line) => line.commands),
    faults: planned.filter((line) => line.fault).length,
  };
}
