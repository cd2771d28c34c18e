/** Parts that fail take nothing else down. */
import { act, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { Boundary } from './Boundary';
import { loadable } from './loadable';
import { useWaiting } from './loading';

function Waiting() {
  return <p data-testid="waiting">{String(useWaiting())}</p>;
}
const tick = (ms: number) => act(() => jest.advanceTimersByTimeAsync(ms));

describe('a part that is loaded when it is shown', () => {
  beforeEach(() => jest.useFakeTimers());
  afterEach(() => jest.useRealTimers());

  it('says that it cannot be, is tried again, and then is there', async () => {
    let tries = 0;
    const Part = loadable('part', () =>
      (tries += 1) < 3 ? Promise.reject(new Error('no chunk')) : Promise.resolve(() => <p>the part</p>),
    );
    render(
      <>
        <Part />
        <Waiting />
      </>,
    );
    await tick(0);
    expect(screen.getByText(/This table cannot be loaded/)).toBeInTheDocument();
    expect(screen.getByTestId('waiting')).toHaveTextContent('true');
    await tick(2000);
    await tick(2000);
    expect(screen.getByText('the part')).toBeInTheDocument();
    expect(screen.getByTestId('waiting')).toHaveTextContent('false');
    expect(tries).toBe(3);
  });
});

describe('a fault in a part', () => {
  const quiet = jest.spyOn(console, 'error').mockImplementation(() => undefined);
  afterAll(() => quiet.mockRestore());
  let broken = true;
  function Fragile() {
    if (broken) throw new Error('nothing there');
    return <p>whole</p>;
  }
  function Room() {
    const [of, setOf] = useState('a');
    return (
      <>
        <button onClick={() => setOf(of === 'a' ? 'b' : 'a')}>other</button>
        <Boundary what="The table" of={of}>
          <Fragile />
        </Boundary>
      </>
    );
  }

  it('stays there, is told, and goes with another try or another part', () => {
    render(<Room />);
    expect(screen.getByRole('alert')).toHaveTextContent('The table cannot be drawn. Your changes are not affected.');
    broken = false;
    fireEvent.click(screen.getByRole('button', { name: 'Try again' }));
    expect(screen.getByText('whole')).toBeInTheDocument();
    broken = true;
    fireEvent.click(screen.getByRole('button', { name: 'other' }));
    expect(screen.getByRole('alert')).toBeInTheDocument();
    broken = false;
    fireEvent.click(screen.getByRole('button', { name: 'other' }));
    expect(screen.getByText('whole')).toBeInTheDocument();
  });
});
