import { fireEvent, render, screen } from '@testing-library/react';
import { Grid } from './Grid';

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
});
