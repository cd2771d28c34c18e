/** Making a pair of two switches that are there. */
import { editAll } from './edit';
import type { Design } from '../model/document';
import { problemText } from '../model/problem';
import { pairsOf } from '../topology/pairs';
import { networkOf } from '../testing/networks';
import { solve } from '../tree/solve';
import { pairFindings } from '../analysis/findings/pairFindings';
import { pairThese } from './pairing';

const CABLES = ['a 1 = b 1', 'a 2 = b 2', 'a 3 = x 1', 'b 3 = x 2', 'x 3 = a 4', 'y 1 = a 5', 'a 6 = z 1', 'b 6 = z 2'];
const HOSTS = [
  {
    id: 'store',
    mac: '02:00:00:00:99:01',
    vlan: 1,
    attach: [
      { switch: 'a', port: '9' },
      { switch: 'b', port: '9' },
    ],
  },
];
const network = (switches: Record<string, object> = {}, cables = CABLES): Design =>
  networkOf(
    { a: { ...switches['a'] }, b: { ...switches['b'] }, x: {}, y: {}, z: {} },
    cables,
    { 'a 9': {}, 'b 9': {} },
    { hosts: HOSTS },
  );
const made = (design: Design, ...ids: string[]) => {
  const commands = pairThese(design, ids as never);
  if (!commands.ok) return commands.error;
  const edited = editAll(design, commands.value);
  if (!edited.ok) throw new Error(problemText(edited.error));
  return edited.value.design;
};

it('bundles what both have cables to, and pairs them over the cables between them', () => {
  const design = made(network(), 'b', 'a') as Design;
  const [pair] = pairsOf(design);
  expect(pair).toMatchObject({ state: 'together', unlike: [], keepaliveUp: true });
  expect(pair!.switches.map(({ id }) => id)).toEqual(['b', 'a']);
  expect(pair!.bundles.map(({ halves }) => halves.map(({ ports }) => ports))).toEqual([
    [['3'], ['3', '4']],
    [['6'], ['6']],
    [['9'], ['9']],
  ]);
  expect(pairFindings(design)).toEqual([]);
  const { network: compiled } = solve(design);
  expect(compiled.use.every((use) => use === 'bundle')).toBe(true);
  expect(design.bundles.find((bundle) => bundle.switch === 'x')!.ports).toEqual(['2', '1', '3']);
  expect(design.bundles.some((bundle) => bundle.switch === 'y')).toBe(false);
});

it('says why it cannot', () => {
  expect(made(network(), 'a', 'b', 'x')).toBe('A pair takes two switches.');
  expect(made(network({ b: { dialect: 'stp' } }), 'a', 'b')).toBe(
    'The switches of a pair run one spanning tree mode: a runs RSTP, b Classic STP.',
  );
  expect(made(network({}, CABLES.slice(2)), 'a', 'b')).toBe(
    'No cable joins a and b: a pair needs a peer link between its switches.',
  );
  expect(made(made(network(), 'a', 'b') as Design, 'a', 'x')).toBe('a is half of a pair already.');
});
