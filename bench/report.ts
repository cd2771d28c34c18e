/** What a bench prints: tables of figures, written as JSON beside them, and held against those of another time. */
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';

type Cell = string | number | boolean | null;
export type Row = Readonly<Record<string, Cell>>;

/** A time, a size, or a share of something else's: less is better. */
const isFigure = (column: string): boolean => /\((ms|s|MB)\)$|^(ratio|of )/.test(column);
/** Moments of simulated time say what happened, not how long it took. */
const ANSWERS = /^settled at/;
/** How much slower than before is more than chance. */
const SLOWER = 1.25;

interface Measured {
  /** What a plain loop takes on the machine, ms: it tells how fast the machine was. */
  readonly loop: number;
  /** By table and row, the figures by column. */
  readonly tables: Record<string, Record<string, Record<string, number>>>;
}

const measured: Measured = { loop: plainLoop(), tables: {} };

/** Prints a table and keeps its figures. */
export function report(title: string, rows: readonly object[]): void {
  console.log(`\n${title}`);
  console.table(rows);
  const kept = (measured.tables[title.replace(/ \(aim.*$/, '')] ??= {});
  for (const row of rows as readonly Row[]) {
    const entries = Object.entries(row).filter(([column]) => !ANSWERS.test(column));
    const labels = entries.filter(([column, cell]) => !isFigure(column) && !COUNTS.has(column) && cell !== null);
    const figures = entries.filter(([column, cell]) => isFigure(column) && Number.isFinite(Number(cell)));
    kept[labels.map(([column, cell]) => `${column} ${cell}`).join(', ') || 'all'] = Object.fromEntries(
      figures.map(([column, cell]) => [column, Number(cell)]),
    );
  }
}
/** What is counted while it is measured, and is another number each time. */
const COUNTS = new Set(['frames', 'over two frames', 'events', 'results', 'proposed', 'changes']);

/** Writes all figures to a file. */
export function writeFigures(file: string): void {
  mkdirSync(path.dirname(path.resolve(file)), { recursive: true });
  writeFileSync(file, `${JSON.stringify(measured, null, 1)}\n`);
  console.log(`\nfigures: ${file}`);
}

/** Prints what is slower than in a file of figures, the speed of the machine then and now counted out; gives how much of it there is. */
export function compareFigures(file: string): number {
  if (!existsSync(file)) throw new Error(`--against ${file}: there is no such file`);
  const before = JSON.parse(readFileSync(file, 'utf8')) as Measured;
  const machine = measured.loop / before.loop;
  const slower = Object.entries(measured.tables).flatMap(([table, rows]) =>
    Object.entries(rows).flatMap(([row, figures]) =>
      Object.entries(figures).flatMap(([column, now]) => {
        const then = before.tables[table]?.[row]?.[column];
        if (!then) return [];
        const times = now / then / (/^(ratio|of )/.test(column) ? 1 : machine);
        return times > SLOWER ? [{ table, row, column, then, now, times: Number(times.toFixed(2)) }] : [];
      }),
    ),
  );
  console.log(`\nAgainst ${file} (this machine takes ${machine.toFixed(2)} times as long for a plain loop as then)`);
  if (slower.length === 0) console.log('nothing is slower');
  else console.table(slower);
  return slower.length;
}

/** The least of several, since others may use the machine as well. */
function plainLoop(): number {
  const times = Array.from({ length: 5 }, () => {
    const start = performance.now();
    let x = 0;
    for (let i = 0; i < 3e7; i += 1) x = (x * 31 + i) | 0;
    return performance.now() - start + (x === 1 ? 1 : 0);
  });
  return Math.min(...times);
}
