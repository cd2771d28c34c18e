/** The Prove view: lines that become intents, how they stand, what failures say. */
import { act, fireEvent, screen, within } from '@testing-library/react';
import { actionsOf } from '../../../core/analysis/failures/failure';
import { everyFailure } from '../../../core/analysis/failures/everyFailure';
import { fernhollow } from '../../../core/demo/demos';
import { editAll } from '../../../core/edit/edit';
import type { Design } from '../../../core/model/document';
import { solve } from '../../../core/tree/solve';
import { NOT_ASKED } from '../../state/failures';
import { standingsOf } from '../../state/standings';
import { judgedSince, type Judged } from '../../state/verdicts';
import { renderWith, settle } from '../../testing';
import { addIntents } from './addIntents';
import { failureRows } from './EveryFailureTable';
import { harmOfLinks, harmOfSwitches } from './Harm';
import { IntentLine } from './IntentLine';
import { IntentList } from './IntentList';

const type = async (text: string): Promise<void> => {
  const field = screen.getByLabelText('Line for intents');
  fireEvent.change(field, { target: { value: text } });
  await settle();
  fireEvent.keyDown(field, { key: 'Enter' });
  await settle();
};
const rows = () => within(screen.getByRole('list', { name: 'Intents' })).getAllByRole('listitem');
const states = (): (string | null)[] => rows().map((each) => each.getAttribute('data-intent'));

it('adds lines once, judges them, and mends the one that is broken', async () => {
  const store = await renderWith(
    <>
      <IntentLine />
      <IntentList />
    </>,
  );
  act(() => store.getState().setLens('Prove'));
  await type('ridge-a is root of vlan 15\nall hosts reach each other');
  await settle();
  expect(store.getState().design.intents.map(({ id, line }) => `${id} ${line}`)).toEqual([
    'i1 ridge-a is root of vlan 15',
    'i2 all hosts reach each other',
  ]);
  expect(states()).toEqual(['broken', 'holds']);
  await type('all hosts reach each other');
  expect(screen.getByRole('alert')).toHaveTextContent('The design has this intent already.');
  fireEvent.click(screen.getByRole('button', { name: 'Make ridge-a root of VLAN 15' }));
  await settle();
  await settle();
  expect(states()).toEqual(['holds', 'holds']);
  act(() => store.getState().undo());
  await settle();
  await settle();
  expect(states()).toEqual(['broken', 'holds']);
  const [broken] = rows();
  expect(broken).toHaveTextContent('It held until');
  fireEvent.click(within(broken!).getByRole('button', { name: 'make it a should' }));
  fireEvent.click(within(broken!).getByRole('button', { name: 'note' }));
  const note = screen.getByLabelText('Note');
  fireEvent.change(note, { target: { value: 'the camera records there' } });
  fireEvent.keyDown(note, { key: 'Enter' });
  await settle();
  expect(store.getState().design.intents[0]).toMatchObject({ severity: 'should', note: 'the camera records there' });
});

it('shows where a line is wrong and adds nothing', async () => {
  const store = await renderWith(<IntentLine />);
  await type('ridge-a is root of vlan 15\nridge-q blocks vlan 15');
  expect(screen.getByText('there is no switch ridge-q')).toBeInTheDocument();
  expect(store.getState().design.intents).toEqual([]);
});

const withLines = (...lines: readonly string[]): Design => {
  const design = fernhollow();
  const done = editAll(
    design,
    addIntents(
      design,
      lines.map((line) => ({ line, severity: 'must' as const })),
    ),
  );
  if (!done.ok) throw new Error(done.error.found);
  return done.value.design;
};

it('lets an intent wait until failures are known, then names the failure', () => {
  const design = withLines(
    'whatever switch fails, access switches never become root',
    'whatever link fails, all hosts reach each other',
  );
  const solution = solve(design);
  const later = {
    kind: 'found' as const,
    list: judgedSince(
      [],
      design.intents.map(({ id }) => [id, { is: 'later' }]),
      null,
    ),
  };
  expect(standingsOf(solution, later, NOT_ASKED, NOT_ASKED, design).map(({ is }) => is)).toEqual(['waits', 'waits']);
  const found = { of: design, all: everyFailure(solution), whole: true };
  const [first, second] = standingsOf(solution, later, { ...NOT_ASKED, kind: 'found', found }, NOT_ASKED, design);
  expect(first).toMatchObject({ is: 'broken', failure: { kind: 'switch' } });
  expect(first!.why).toMatch(/^If ridge-a has no power: the root of VLANs .* 7 more failures break it, too\.$/);
  expect(second!.is).toBe('holds');
  // What was found of another state says nothing of this one.
  expect(
    standingsOf(solution, later, { ...NOT_ASKED, kind: 'busy', found }, NOT_ASKED, { ...design }).map(({ is }) => is),
  ).toEqual(['waits', 'waits']);
});

it('remembers the change that broke an intent until it holds again', () => {
  const verdict = (is: 'holds' | 'broken') => (is === 'holds' ? { is } : { is, why: 'so', at: {}, way: null });
  const broken: Judged[] = judgedSince(
    judgedSince([], [['a', verdict('holds')]], 'first'),
    [['a', verdict('broken')]],
    'second',
  );
  expect(broken[0]!.brokenBy).toBe('second');
  expect(judgedSince(broken, [['a', verdict('broken')]], 'third')[0]!.brokenBy).toBe('second');
  expect(judgedSince(broken, [['a', verdict('holds')]], 'fourth')[0]!.brokenBy).toBeNull();
  expect(judgedSince([], [['a', verdict('broken')]], 'fifth')[0]!.brokenBy).toBeNull();
});

it('lists failures with what they do, and draws how much hangs on what', () => {
  const design = withLines('whatever switch fails, all hosts reach each other');
  const all = everyFailure(solve(design));
  const listed = failureRows(design, all);
  expect(listed).toHaveLength(all.outcomes.length);
  expect(listed.find(({ failure }) => failure === 'lodge has no power')).toMatchObject({
    lost: 'Visitor kiosk',
    roots: 'workshop',
  });
  const links = harmOfLinks(all.outcomes);
  expect(Math.max(...[...links.values()].map(({ share }) => share))).toBe(1);
  expect(harmOfSwitches(all.outcomes).get('dome-north' as never)).toBe('2 alone');
  for (const { failure } of all.outcomes) expect(actionsOf(failure).length).toBeGreaterThan(0);
});
