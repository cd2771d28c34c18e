/** Lines that make one of several switches. */
import { cablesOf, faultOf, made, portOf } from '../testing/madeByLines';
import { pairsOf } from '../topology/pairs';
import { planLines } from './plan';

describe('a pair', () => {
  const text = 'a 1-2 = b 1-2\na 3 = x 1\nb 3 = x 2\npair a, b\nswitch c';
  it('is made of two switches as the lines before it leave them', () => {
    const design = made(text);
    const [pair] = pairsOf(design);
    expect(pair!.switches.map(({ id }) => id)).toEqual(['a', 'b']);
    expect(pair!.bundles.map(({ halves }) => halves.map(({ ports }) => ports))).toEqual([[['3'], ['3']]]);
    expect(new Set([pair!.switches[0]!.pair!.mac, ...design.switches.map(({ mac }) => mac)]).size).toBe(5);
  });
  it('that is there is left alone', () => {
    const design = made(text);
    expect(planLines(design, 'pair b, a').commands).toEqual([]);
    expect(made('switch a core\npair a, b', design).switches[0]!.pair).toEqual(design.switches[0]!.pair);
  });
  it.each([
    ['a 1 = b 1\npair a', 'A pair takes two switches.'],
    ['a 1 = b 1\npair a, gone', 'there is no switch gone'],
    ['switch a, b\npair a, b', 'No cable'],
  ])('%s', (lines, message) =>
    expect(faultOf(lines)).toMatchObject({ message: expect.stringContaining(message) as string }),
  );
});

describe('a stack', () => {
  it('is made of switches as the lines before it leave them, and lines after it know its ports', () => {
    const design = made('a 1 = b 1\na 2 = x 1\nb 2 = x 2\nhost h = b 5\nstack a, b\nport a 2/2 trunk 1,15\na 7 = y 1');
    const [a] = design.switches;
    expect(a!.stack!.members.map(({ id }) => id)).toEqual([1, 2]);
    expect(design.switches.map(({ id }) => id)).toEqual(['a', 'x', 'y']);
    expect(cablesOf(design)).toEqual(['a 2 = x 1', 'a 2/2 = x 2', 'a 7 = y 1']);
    expect(portOf(design, 'a', '2/2')!.vlans).toMatchObject({ mode: 'trunk', allowed: '1,15' });
    expect(new Set([...design.switches, ...a!.stack!.members].map(({ mac }) => mac)).size).toBe(4);
  });
  it.each([
    ['switch a\nstack a', 'A stack takes two switches or more.'],
    ['switch a rstp\nswitch b stp\nstack a, b', 'The members of a stack run one spanning tree mode'],
    ['switch a, b\nstack a, b\nstack a, b', 'there is no switch b'],
  ])('%s', (lines, message) =>
    expect(faultOf(lines)).toMatchObject({ message: expect.stringContaining(message) as string }),
  );
});
