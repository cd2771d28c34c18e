/** Stacks: which members act, and the one switch that they are to everybody else. */
import fc from 'fast-check';
import type { Design, Stack } from '../model/document';
import type { SwitchId } from '../model/ids';
import { stackState } from '../model/stack';
import { networkOf, randomDesign } from '../testing/networks';
import { tries } from '../testing/runs';
import { memberMac, stackOf, stackedIn } from '../testing/stacks';
import { solve } from '../tree/solve';
import { viewTree } from '../tree/settled';
import { deadReason } from './network';

const told = (stack: Stack) => {
  const { acting, master, apart } = stackState(stack);
  return { acting: acting.map(({ id }) => id).sort(), master: master?.id ?? null, apart: apart.map(({ id }) => id) };
};

describe('the members that act', () => {
  it('are all, under the one that most wants to be master, of several the one with the lowest address', () => {
    expect(told(stackOf(3))).toEqual({ acting: [1, 2, 3], master: 1, apart: [] });
    expect(told(stackOf(3, {}, (i) => ({ masterPriority: i === 2 ? 5 : 1 }))).master).toBe(2);
  });
  it('are those with power', () => {
    expect(told(stackOf(3, {}, (i) => ({ up: i !== 1 })))).toEqual({ acting: [2, 3], master: 2, apart: [] });
    expect(told(stackOf(2, {}, () => ({ up: false })))).toEqual({ acting: [], master: null, apart: [] });
  });
  it('go on around the other side of a ring, and are the greater part of a chain', () => {
    const cutAfter =
      (...ids: number[]) =>
      (i: number) => ({ cable: !ids.includes(i) });
    expect(told(stackOf(4, { ring: true }, cutAfter(2))).acting).toEqual([1, 2, 3, 4]);
    expect(told(stackOf(4, { ring: true }, cutAfter(1, 3)))).toEqual({ acting: [1, 4], master: 1, apart: [2, 3] });
    expect(told(stackOf(4, { ring: false }, cutAfter(1)))).toEqual({ acting: [2, 3, 4], master: 2, apart: [1] });
    expect(told(stackOf(3, { ring: false }, (i) => ({ up: i !== 2 })))).toEqual({ acting: [1], master: 1, apart: [3] });
  });
  it('are one connected part of those with power, and no other part is larger: any stack', () => {
    const member = fc.record({ up: fc.boolean(), cable: fc.boolean(), masterPriority: fc.integer({ min: 1, max: 3 }) });
    fc.assert(
      fc.property(fc.array(member, { minLength: 2, maxLength: 8 }), fc.boolean(), (members, ring) => {
        const stack = stackOf(members.length, { ring }, (i) => members[i - 1]!);
        const n = members.length;
        const joined = (i: number, j: number): boolean =>
          members[i]!.up &&
          members[j]!.up &&
          ((j === i + 1 && members[i]!.cable) || (ring && i === n - 1 && j === 0 && members[i]!.cable));
        const part = new Map<number, number>();
        for (let i = 0; i < n; i += 1) if (members[i]!.up) part.set(i, i);
        for (let round = 0; round < n; round += 1)
          for (let i = 0; i < n; i += 1)
            for (let j = 0; j < n; j += 1)
              if (joined(i, j)) {
                const least = Math.min(part.get(i)!, part.get(j)!);
                part.set(i, least).set(j, least);
              }
        const sizes = new Map<number, number>();
        for (const root of part.values()) sizes.set(root, (sizes.get(root) ?? 0) + 1);
        const { acting, master, apart } = stackState(stack);
        expect(new Set(acting.map(({ id }) => part.get(id - 1))).size).toBe(acting.length > 0 ? 1 : 0);
        expect(acting.length).toBe(Math.max(0, ...sizes.values()));
        expect([...acting, ...apart].map(({ id }) => id - 1).sort()).toEqual([...part.keys()].sort());
        if (master) expect(Math.max(...acting.map((each) => each.masterPriority))).toBe(master.masterPriority);
      }),
      { numRuns: tries(60) },
    );
  });
});

const view = (design: Design) => {
  const { network, trees } = solve(design);
  return trees.map((tree) => viewTree(network, tree));
};

describe('a stack in a network', () => {
  const ring = (stack: object | undefined, rest: object = {}) =>
    networkOf(
      { a: { priority: 0 }, b: { ...(stack ? { stack } : {}), ...rest }, c: {} },
      ['a 1 = b 1', 'b 2 = c 1', 'c 2 = a 2'],
      { 'b 2': { stackMember: 2 } },
    );

  it('is one switch: nothing else changes when a switch becomes a stack with all members in order', () => {
    fc.assert(
      fc.property(randomDesign('mixed'), fc.nat(), fc.integer({ min: 2, max: 4 }), (design, pick, members) => {
        const stacked = stackedIn(design, pick, stackOf(members));
        expect(view(stacked)).toEqual(view(design));
      }),
      { numRuns: tries(20) },
    );
  });
  it('loses the ports of a member without power, which say why, and no other', () => {
    const design = ring(stackOf(2, {}, (i) => ({ up: i === 1 })));
    const [tree] = view(design);
    expect(tree!.switches['b' as SwitchId]!.ports).toMatchObject({ 1: { role: 'root' }, 2: { role: 'disabled' } });
    const { network } = solve(design);
    expect(deadReason(network, network.portIndexOf('b' as SwitchId, '2' as never))).toBe('stack-member-off');
    expect(deadReason(network, network.portIndexOf('c' as SwitchId, '1' as never))).toBe('far-end-down');
  });
  it('has an address of its own, or that of its master', () => {
    const macOf = (stack: Stack) => solve(ring(stack)).network.switches[1]!.mac;
    const own = ring(undefined).switches[1]!.mac;
    const first = (i: number) => ({ up: i !== 1 });
    expect(macOf(stackOf(2))).toBe(own);
    expect(macOf(stackOf(2, {}, first))).toBe(own);
    expect(macOf(stackOf(2, { keepsAddress: false }))).toBe(memberMac(1));
    expect(macOf(stackOf(2, { keepsAddress: false }, first))).toBe(memberMac(2));
  });
  it('without a member with power is a switch without power', () => {
    expect(solve(ring(stackOf(2, {}, () => ({ up: false })))).network.switches[1]!.up).toBe(false);
  });
});
