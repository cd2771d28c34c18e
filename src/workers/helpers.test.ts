/** Who helps with a run: as many as there are processors to spare, of large runs alone, and nobody who is lost. */
import { helperBeside } from '../core/testing/helpers';
import { helpersFrom } from './helpers';

it('starts each helper once, for large runs alone, and asks none again that is lost', () => {
  const lost: (() => void)[] = [];
  const start = jest.fn((gone: () => void) => {
    lost.push(gone);
    return helperBeside();
  });
  const helpers = helpersFrom(start, 2);
  expect(helpers(1000)).toEqual([]);
  expect(start).not.toHaveBeenCalled();
  const [first, second] = helpers(1_000_000);
  expect(helpers(1_000_000)).toEqual([first, second]);
  expect(start).toHaveBeenCalledTimes(2);
  lost[0]!();
  expect(helpers(1_000_000)).toHaveLength(1);
  expect(helpers(1_000_000)[0]).toBe(second);
  expect(start).toHaveBeenCalledTimes(2);
});

it('are none where no processor is to spare', () => {
  expect(helpersFrom(helperBeside, 0)(1_000_000)).toEqual([]);
  expect(helpersFrom(helperBeside, -1)(1_000_000)).toEqual([]);
});
