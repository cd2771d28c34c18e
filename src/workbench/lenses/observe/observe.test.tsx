/** The Observe view: rows taken over, doubts settled once, what is told of what is selected. */
import { act, fireEvent, screen, within } from '@testing-library/react';
import { useEffect } from 'react';
import { fernhollow } from '../../../core/demo/demos';
import { editAll } from '../../../core/edit/edit';
import type { Observation } from '../../../core/exchange/observation/observation';
import { observedAtRest } from '../../../core/testing/observed';
import { useObservation } from '../../state/observation';
import { renderWith, settle } from '../../testing';
import { AsTold } from './AsTold';
import { HeldTable } from './HeldTable';
import { PredictedTable } from './PredictedTable';
import { ReadTable } from './ReadTable';

/** Holds what was read, as reading a file does. */
const held = { hold: (_: Observation | null): void => undefined };
function Holder() {
  const { hold } = useObservation();
  useEffect(() => {
    held.hold = hold;
  });
  return null;
}
const there = () => {
  const done = editAll(fernhollow(), [
    { do: 'set-bridge-priority', switch: 'ridge-a' as never, tree: 'vlan:15' as never, priority: 4096 },
    { do: 'set-port-cost', switch: 'lodge' as never, port: '3' as never, tree: 'vlan:15' as never, cost: 77 },
  ]);
  if (!done.ok) throw new Error(done.error.found);
  return observedAtRest(done.value.design);
};
const rows = () =>
  within(screen.getByRole('table', { name: 'Differences' }))
    .getAllByRole('row')
    .slice(1);
afterEach(() => act(() => held.hold(null)));

it('takes a row over, and all of them, each in a step that can be undone', async () => {
  const store = await renderWith(
    <>
      <Holder />
      <HeldTable />
      <AsTold id={'ridge-a' as never} />
      <AsTold id={'lodge' as never} port={'3' as never} />
    </>,
  );
  act(() => held.hold(there()));
  await settle();
  expect(rows()[0]).toHaveTextContent('another root');
  const [ofRidge, ofPort] = screen.getAllByRole('region', { name: 'As the network tells it' });
  expect(ofRidge).toHaveTextContent('bridge priority in VLAN 15: 4096; the design says 32768');
  expect(ofPort).toHaveTextContent('cost in VLAN 15: 77; the design says 20000');
  const before = rows().length;
  fireEvent.click(within(rows()[0]!).getByRole('button', { name: 'take over' }));
  await settle();
  expect(rows().length).toBeLessThan(before);
  expect(store.getState().design.switches[0]!.trees).toEqual({ 'vlan:15': { priority: 4096 } });
  act(() => store.getState().undo());
  await settle();
  fireEvent.click(screen.getByRole('button', { name: 'take all over' }));
  await settle();
  expect(screen.getByText('All that was read is as designed.')).toBeInTheDocument();
  act(() => store.getState().undo());
  await settle();
  expect(rows()).toHaveLength(before);
});

it('settles who a switch is once and for all, and which port an interface is', async () => {
  const store = await renderWith(
    <>
      <Holder />
      <ReadTable />
    </>,
  );
  const all = observedAtRest(fernhollow());
  const stranger = (sw: Observation['switches'][number]) => ({
    ...{ ...sw, name: 'sw-0047', mac: '02:99:00:00:00:47', chassis: '02:99:00:00:00:47' },
    ports: sw.ports.map((port) =>
      port.number === 3 ? { ...port, number: 103, interface: 'uplink', vlans: { carried: '1', untagged: 1 } } : port,
    ),
  });
  act(() => held.hold({ ...all, switches: all.switches.map((sw) => (sw.name === 'lodge' ? stranger(sw) : sw)) }));
  await settle();
  const row = () => screen.getByRole('row', { name: /sw-0047/ });
  expect(row()).toHaveTextContent('in doubt');
  fireEvent.change(screen.getByLabelText('Who sw-0047 is'), { target: { value: 'lodge' } });
  await settle();
  expect(row()).toHaveTextContent('settled by hand');
  const lodge = () => store.getState().design.switches.find(({ id }) => id === 'lodge')!;
  expect(lodge().knownAs).toBe('02:99:00:00:00:47');
  fireEvent.change(screen.getByLabelText('Which port of lodge uplink is'), { target: { value: '3' } });
  await settle();
  expect(lodge().ports.find(({ id }) => id === '3')!.knownAs).toBe('uplink');
  fireEvent.change(screen.getByLabelText('Who sw-0047 is'), { target: { value: '' } });
  await settle();
  expect(row()).toHaveTextContent('in doubt');
});

it('says what the settings come to, beside what the switches say', async () => {
  await renderWith(
    <>
      <Holder />
      <PredictedTable />
    </>,
  );
  expect(screen.getByText(/Nothing was read yet/)).toBeInTheDocument();
  const all = there();
  act(() => held.hold(all));
  expect(screen.getByText(/What the settings come to is what the switches say/)).toBeInTheDocument();
  act(() => held.hold({ ...all, switches: all.switches.filter(({ name }) => name !== 'lodge') }));
  expect(screen.getByRole('list', { name: 'To ask for' })).toHaveTextContent(
    'lodge was told of by its neighbours and not read: read it, too.',
  );
});
