/** Flows over the members of a bundle: which end sends which, and where they go when a member is lost. */
import { fernhollow } from '../../demo/demos';
import { editAll } from '../../edit/edit';
import type { Command } from '../../edit/commands';
import type { LinkId } from '../../model/ids';
import type { Design } from '../../model/document';
import { networkOf, solutionOf } from '../../testing/networks';
import { bundlesOf } from '../../topology/lag/ends';
import { bundleThese } from '../lag/bundling';
import { hostAddress, hostFlows, madeUpFlows, spreadOf } from './flows';

const after = (design: Design, commands: readonly Command[]): Design => {
  const edited = editAll(design, commands);
  if (!edited.ok) throw new Error(`${edited.error.path}: ${edited.error.found}`);
  return edited.value.design;
};
const ridge = ['l1', 'l2'] as LinkId[];

describe('flows', () => {
  it('go to one member each, and only those of a lost one move', () => {
    const made = bundleThese(fernhollow(), ridge);
    const design = made.ok ? after(fernhollow(), made.value.commands) : fernhollow();
    const bundles = bundlesOf(design);
    const end = bundles.ends.find((each) => (each.id as string) === 'to-ridge-b')!;
    const flows = madeUpFlows(240, 7);
    const { rows, members } = spreadOf(bundles, end, end.members, flows, '3+4', end.members[1]!);
    expect(members.map(({ id, flows: count }) => [id, count])).toEqual([
      ['1', rows.filter((row) => row.member === '1').length],
      ['2', rows.filter((row) => row.member === '2').length],
    ]);
    expect(rows.every((row) => row.after === '1' && (row.member === '1' || row.member === '2'))).toBe(true);
    expect(members[0]!.flows).toBeGreaterThan(60);
    expect(members[1]!.flows).toBeGreaterThan(60);
    expect(madeUpFlows(200, 7)).toEqual(madeUpFlows(200, 7));
    expect([0, 253, 254].map(hostAddress)).toEqual(['192.0.2.1', '192.0.2.254', '198.51.100.1']);
  });
});

describe('flows between hosts', () => {
  /** West - middle = east, two cables bundled between middle and east, and a host with two bundled cards at the middle. */
  const host = (id: string, mac: number, vlan: number, at: string, rest = {}) => ({
    id,
    mac: `02:00:00:00:01:0${mac}`,
    vlan,
    attach: at.split(', ').map((end) => ({ switch: end.split(' ')[0], port: end.split(' ')[1] })),
    ...rest,
  });
  const line = () =>
    networkOf(
      { west: {}, middle: {}, east: {} },
      ['west 1 = middle 1', 'middle 2 = east 2', 'middle 3 = east 3'],
      Object.fromEntries(['west 8', 'west 9', 'middle 8', 'middle 9', 'east 8', 'east 9'].map((end) => [end, {}])),
      {
        vlans: [{ id: 1 }],
        hosts: [
          host('w1', 1, 1, 'west 8'),
          host('w2', 2, 1, 'west 9'),
          host('m', 3, 1, 'middle 8, middle 9', { bundle: { mode: 'active' } }),
          host('e1', 4, 1, 'east 8'),
          host('e2', 5, 1, 'east 9'),
        ],
        bundles: [
          { id: 'to-east', switch: 'middle', number: 1, ports: ['2', '3'], mode: 'active' },
          { id: 'to-m', switch: 'middle', number: 2, ports: ['8', '9'], mode: 'active' },
          { id: 'to-middle', switch: 'east', number: 1, ports: ['2', '3'], mode: 'active' },
        ],
      },
    );
  const flowsAt = (design: Design, id: string) => {
    const { sent, others } = hostFlows(
      solutionOf(design),
      bundlesOf(design).ends.find((end) => (end.id as string) === id)!,
    );
    return { sent: sent.map(({ from, to }) => `${from} ${to}`).join(', '), others };
  };

  it('count where an end of the bundle sends them, and nowhere else', () => {
    expect(flowsAt(line(), 'to-east')).toEqual({ sent: 'w1 e1, w1 e2, w2 e1, w2 e2, m e1, m e2', others: 14 });
    expect(flowsAt(line(), 'to-middle')).toEqual({ sent: 'e1 w1, e1 w2, e1 m, e2 w1, e2 w2, e2 m', others: 14 });
    // A host's own cards, and the switch's end of them.
    expect(flowsAt(line(), 'm')).toEqual({ sent: 'm w1, m w2, m e1, m e2', others: 16 });
    expect(flowsAt(line(), 'to-m')).toEqual({ sent: 'w1 m, w2 m, e1 m, e2 m', others: 16 });
  });

  it('do not count where the bundle blocks, or an end has no power', () => {
    const round = networkOf(
      { a: { priority: 0 }, b: {}, c: {} },
      ['a 1 = b 1', 'a 2 = c 2', 'b 3 = c 3', 'b 4 = c 4'],
      { 'b 8': {}, 'c 8': {} },
      {
        hosts: [host('hb', 1, 1, 'b 8'), host('hc', 2, 1, 'c 8')],
        bundles: [
          { id: 'to-c', switch: 'b', number: 1, ports: ['3', '4'], mode: 'active' },
          { id: 'to-b', switch: 'c', number: 1, ports: ['3', '4'], mode: 'active' },
        ],
      },
    );
    for (const id of ['to-c', 'to-b']) expect(flowsAt(round, id)).toEqual({ sent: '', others: 2 });
    const dead = after(line(), [{ do: 'set-switch', switch: 'east' as never, up: false }]);
    expect(flowsAt(dead, 'to-east')).toEqual({ sent: '', others: 20 });
  });
});
