/** The Guard view: what the inspector sets, what the tables say, where tags go. */
import { act, fireEvent, screen } from '@testing-library/react';
import fc from 'fast-check';
import { fernhollow } from '../../../core/demo/demos';
import { underFailures } from '../../../core/analysis/guards/failures';
import { intrusionsOf } from '../../../core/analysis/guards/intruder';
import type { PortId, SwitchId } from '../../../core/model/ids';
import { networkOf, solutionOf } from '../../../core/testing/networks';
import { tries } from '../../../core/testing/runs';
import { Inspector } from '../../inspector/Inspector';
import { overlaps } from '../../map/occupied';
import { plainBox } from '../../map/testing';
import type { Item } from '../../state/selection';
import { renderWith, settle } from '../../testing';
import { failureRows } from './FailureTable';
import { placeTags } from '../../map/tags';
import { RulesTable } from './RulesTable';
import { strangerRows } from './StrangerTable';

const port = (sw: string, id: string): Item => ({ kind: 'port', switch: sw as SwitchId, port: id as PortId });
const choose = async (label: string, value: string): Promise<void> => {
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
  await settle();
};

describe('the inspector', () => {
  it('sets guards of several ports at once, and takes a setting of its own away again', async () => {
    const store = await renderWith(<Inspector />);
    act(() => store.getState().setLens('Guard'));
    act(() =>
      store.getState().select({ kind: 'several', items: [port('lodge', '5'), port('workshop', '5')] as never }),
    );
    await settle();
    const own = () =>
      ['lodge', 'workshop'].map(
        (id) =>
          store
            .getState()
            .design.switches.find((sw) => sw.id === id)!
            .ports.find((each) => each.id === '5')!.bpduGuard,
      );
    await choose('BPDU guard', 'on');
    expect(own()).toEqual([true, true]);
    await choose('BPDU guard', 'unset');
    expect(own()).toEqual([undefined, undefined]);
  });

  it('reads a storm limit in per cent and in frames, and says what it does not take', async () => {
    const store = await renderWith(<Inspector />);
    act(() => store.getState().setLens('Guard'));
    act(() => store.getState().select(port('lodge', '5')));
    await settle();
    const limit = () =>
      store
        .getState()
        .design.switches.find((sw) => sw.id === 'lodge')!
        .ports.find((each) => each.id === '5')!.stormLimit;
    const type = async (text: string): Promise<void> => {
      const field = screen.getByLabelText('Storm limit');
      fireEvent.change(field, { target: { value: text } });
      fireEvent.keyDown(field, { key: 'Enter' });
      await settle();
    };
    await type('2.5 %');
    expect(limit()).toEqual({ most: 2.5, of: 'percent' });
    await type('800/s');
    expect(limit()).toEqual({ most: 800, of: 'frames' });
    await type('many');
    expect(screen.getByRole('alert')).toHaveTextContent('Up to 100 %, or frames a second.');
    expect(limit()).toEqual({ most: 800, of: 'frames' });
    await type('');
    expect(limit()).toBeUndefined();
  });
});

it('rules are for the selected switches where some are, and say when nothing is left to do', async () => {
  const store = await renderWith(<RulesTable />);
  expect(screen.getByText(/On all switches/)).toBeInTheDocument();
  act(() => store.getState().select({ kind: 'switch', switch: 'lodge' as SwitchId }));
  await settle();
  expect(screen.getByText('On 1 selected switch.')).toBeInTheDocument();
  fireEvent.click(screen.getByRole('button', { name: 'take it, proposal 1' }));
  await settle();
  expect(store.getState().design.switches.find((sw) => sw.id === 'lodge')?.edgeBpduGuard).toBe(true);
  expect(screen.getByText(/^Nothing left to do: BPDU guard on every edge port/)).toBeInTheDocument();
});

describe('tables', () => {
  it('of strangers have those first whom nothing stops', () => {
    const rows = strangerRows(fernhollow(), intrusionsOf(solutionOf(fernhollow())));
    expect(rows.map(({ stopped }) => stopped)).toEqual([
      ...Array.from({ length: 5 }, () => 'nothing'),
      ...Array.from({ length: 7 }, () => 'BPDU guard'),
    ]);
  });

  it('of failures name the failure, the guard and who is cut off', () => {
    const design = networkOf(
      { r: { priority: 0 }, d: {}, e: {}, a: {} },
      ['r 1 = d 1', 'r 2 = e 1', 'd 2 = a 1', 'e 2 = a 2'],
      {
        'e 2': { rootGuard: true },
        'r 1': { loopGuard: true },
      },
    );
    expect(
      failureRows(design, underFailures(solutionOf(design))).map(({ failure, guard, cutOff }) => [
        failure,
        guard,
        cutOff,
      ]),
    ).toEqual([
      ['r port 2 to e port 1 is cut', 'root guard at e port 2', 'e'],
      ['r has no power', 'root guard at e port 2', 'e'],
      ['anything at all fails', 'loop guard at r port 1', 'nobody: it can never act'],
    ]);
  });
});

it('tags lie over no box and no other tag', () => {
  const point = fc.record({ x: fc.integer({ min: 0, max: 500 }), y: fc.integer({ min: 0, max: 300 }) });
  fc.assert(
    fc.property(fc.array(point, { minLength: 1, maxLength: 9 }), (points) => {
      const boxes = points.map((at, i) => plainBox(`s${i}`, at));
      const tags = placeTags(new Map(boxes.map(({ id }) => [id, '2 open'])), boxes, []);
      const around = boxes.map(({ centre, width, height }) => ({
        x: centre.x - width / 2,
        y: centre.y - height / 2,
        width,
        height,
      }));
      tags.forEach(({ at }, i) => {
        expect([...around, ...tags.slice(0, i).map((tag) => tag.at)].filter((other) => overlaps(at, other))).toEqual(
          [],
        );
      });
    }),
    { numRuns: tries(60) },
  );
});
