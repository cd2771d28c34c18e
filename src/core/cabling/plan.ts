/** What cabling lines do to a design: commands, and what is wrong where. Nothing is changed. */
import type { Command } from '../edit/commands';
import { MAX_COMMANDS } from '../model/limits';
import type { Design } from '../model/document';
import { parseLine } from './parse';
import { Planner } from './planner';
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

/** Plans every line on what the lines before it leave. */
export function planLines(design: Design, text: string): Plan {
  const lines = text.replace(/\r\n?/g, '\n').split('\n');
  const planner = new Planner(design);
  const planned: PlannedLine[] = [];
  let changes = 0;
  for (let i = 0; i < Math.min(lines.length, MOST_LINES); i += 1) {
    const parsed = parseLine(lines[i]!);
    if (parsed.ok && parsed.value.statement === null) continue;
    const made = parsed.ok ? planner.take(parsed.value.statement!) : { commands: [], fault: parsed.error };
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
