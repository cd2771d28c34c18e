/** A designated port that discards, since the other end throws its BPDUs away, carries nothing: whoever asks is told so. */
import { networkOf, solutionOf } from '../../testing/networks';
import { CST } from '../../model/ids';
import { forwards, roleOf } from '../../tree/settled';
import { passing } from '../../tree/passing';
import { steer } from './steer';
import { isMet, targetOf, type Wish } from './wishes';

/** Ten rapid bridges in a row: the messages of the first are older than its max age at the eighth. */
const chain = networkOf(
  Object.fromEntries(
    Array.from({ length: 10 }, (_, i) => [
      `s${i}`,
      { dialect: 'rstp', timers: { maxAge: 6 }, priority: i === 0 ? 0 : 32_768 },
    ]),
  ),
  Array.from({ length: 9 }, (_, i) => `s${i} 2 = s${i + 1} 1`),
);
const solution = solutionOf(chain);
const { network } = solution;
const tree = solution.trees[0]!;
const disputed = [...tree.disputed.keys()].filter((p) => tree.disputed[p]);

it('is designated and discards, in a chain longer than max age', () => {
  expect(disputed).toHaveLength(1);
  const [p] = disputed as [number];
  expect([roleOf(tree, p), forwards(tree, p), passing(solution, 1)[p]]).toEqual(['designated', false, 0]);
});

it('does not carry frames already, and blocks already', () => {
  const [p] = disputed as [number];
  const link = chain.links[network.link[p]!]!;
  const carry: Wish = { wants: 'carry', link: link.id };
  const block: Wish = { wants: 'block', switch: network.switches[network.owner[p]!]!.id, port: network.ports[p]!.id };
  const met = (wish: Wish): boolean => {
    const target = targetOf(network, wish);
    return target.ok && isMet(tree, target.value);
  };
  expect([met(carry), met(block)]).toEqual([false, true]);
  const found = steer(solution, [carry], [CST]);
  expect(found.ok ? '' : found.error).not.toContain('already');
});
