/** What was tried and what came of it. */
export interface Tally {
  readonly what: string;
  tried: number;
  lost: number;
  crashed: number;
  hung: number;
  note: string;
}

export const tally = (what: string): Tally => ({ what, tried: 0, lost: 0, crashed: 0, hung: 0, note: '' });

export function table(tallies: readonly Tally[]): string {
  const rows = [
    ['', 'tried', 'lost', 'crashed', 'hung', ''],
    ...tallies.map((each) => [each.what, each.tried, each.lost, each.crashed, each.hung, each.note].map(String)),
  ];
  const widths = rows[0]!.map((_, column) => Math.max(...rows.map((row) => row[column]!.length)));
  return rows
    .map((row) =>
      row
        .map((cell, column) =>
          column === 0 || column === 5 ? cell.padEnd(widths[column]!) : cell.padStart(widths[column]!),
        )
        .join('  ')
        .trimEnd(),
    )
    .join('\n');
}

export const harmed = (tallies: readonly Tally[]): boolean =>
  tallies.some(({ lost, crashed, hung }) => lost + crashed + hung > 0);
