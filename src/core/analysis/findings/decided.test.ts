/** Decisions on findings: kept by rule and place, whatever else changes. */
import { fernhollow } from '../../demo/demos';
import { editAll } from '../../edit/edit';
import type { Command } from '../../edit/commands';
import type { Decision, Design } from '../../model/document';
import { solve } from '../../tree/solve';
import { decisionOn, openFirst, placeOf } from './decided';
import { findingsOf } from './findings';

const after = (design: Design, ...commands: Command[]): Design => {
  const done = editAll(design, commands);
  if (!done.ok) throw new Error(done.error.found);
  return done.value.design;
};
const found = (design: Design) => findingsOf(design, solve(design));

it('are found again at each finding, whatever its words are, until they are taken back', () => {
  const demo = fernhollow();
  const all = found(demo);
  expect(all.length).toBeGreaterThan(2);
  const decisions = all.map(({ rule, at }, i): Decision => ({
    id: `d${i}`,
    rule,
    at: placeOf(at),
    decided: i % 2 === 0 ? 'stays' : 'mend',
    why: `${i}`,
  }));
  const decided = after(demo, ...decisions.map((decision): Command => ({ do: 'decide', decision })));
  const { open, staying } = openFirst(decided, found(decided));
  expect([...open, ...staying].length).toBe(all.length);
  for (const finding of staying) expect(decisionOn(decided, finding)?.decided).toBe('stays');
  for (const finding of open) expect(decisionOn(decided, finding)?.decided).toBe('mend');
  // Another name changes the words, not the place.
  const renamed = after(
    decided,
    ...demo.switches.map(({ id }): Command => ({ do: 'set-switch', switch: id, name: `The ${id}` })),
  );
  expect(openFirst(renamed, found(renamed)).staying.length).toBe(staying.length);
  const [one] = decided.decisions;
  const back = after(decided, { do: 'undecide', decision: one!.id });
  expect(found(back).filter((finding) => decisionOn(back, finding) === null)).toEqual(
    found(back).filter(({ rule, at }) => rule === one!.rule && JSON.stringify(placeOf(at)) === JSON.stringify(one!.at)),
  );
});
