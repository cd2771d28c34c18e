import { fireEvent, render, screen } from '@testing-library/react';
import { Grid, wideEnough } from './Grid';

const ROWS = ['a', 'b', 'c', 'd'].map((id) => ({ id, name: `row ${id}` }));
const COLUMNS = [{ field: 'name', headerName: 'Root path cost', width: 200 }];

describe('a table', () => {
  it('takes with Shift all rows between the last click and this one, and those that are chosen stay so', async () => {
    const opened: string[] = [];
    const chosen = new Set(['c']);
    render(
      <Grid
        aria-label="Rows"
        rows={ROWS}
        columns={COLUMNS}
        chosen={chosen}
        onOpen={(row, how) => opened.push(`${row.id} ${how}`)}
      />,
    );
    fireEvent.click(await screen.findByText('row a'));
    fireEvent.click(screen.getByText('row d'), { shiftKey: true });
    expect(opened).toEqual(['a alone', 'a more', 'b more', 'd more']);
    fireEvent.click(screen.getByText('row b'), { ctrlKey: true });
    expect(opened.at(-1)).toBe('b more');
  });

  it('keeps the rows that say the same as before', async () => {
    const opened: object[] = [];
    const open = (row: object) => void opened.push(row);
    const { rerender } = render(<Grid aria-label="Rows" rows={ROWS} columns={COLUMNS} onOpen={open} />);
    fireEvent.click(await screen.findByText('row a'));
    const rows = ROWS.map((row) => (row.id === 'b' ? { ...row, name: 'another' } : { ...row }));
    rerender(<Grid aria-label="Rows" rows={rows} columns={COLUMNS} onOpen={open} />);
    fireEvent.click(await screen.findByText('another'));
    fireEvent.click(screen.getByText('row a'));
    expect(opened[1]).toBe(rows[1]);
    expect(opened[2]).toBe(opened[0]);
  });

  it('gives a column the room that its texts need, and no less than its heading', () => {
    const width = (texts: readonly string[], more = {}) =>
      wideEnough(
        { field: 'name', headerName: 'Name', width: 150, ...more },
        texts.map((name, id) => ({ id, name })),
      ).width!;
    expect(width(['a'])).toBeLessThan(100);
    expect(width(['a name of thirty characters ...'])).toBeGreaterThan(31 * 6.5);
    expect(width(['x'.repeat(500)])).toBeLessThanOrEqual(360);
    expect(width([], { headerName: 'A heading of some length' })).toBeGreaterThan(24 * 6);
    expect(width(['1234567890123'], { valueFormatter: () => '1 s' })).toBe(150);
    expect(wideEnough({ field: 'name', headerName: 'Name', flex: 1 }, []).width).toBeUndefined();
  });
});
