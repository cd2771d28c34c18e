/** Random cabling lines, one of each kind of statement, most of them sensible. */
import fc from 'fast-check';

const name = fc.oneof(
  fc.constantFrom('a', 'dome-[1-3]', 'r,s', 'x[a-c]', '"two words"', '"say \\"so\\""', '"[1-2]"'),
  fc.stringMatching(/^[a-z]{1,5}$/).map((text) => `"${text}"`),
);
const ports = fc.constantFrom('', ' 1', ' 1-4', ' 1,3', ' up[1-2]', ' "trunk"', ' "1-2"');
const side = fc
  .array(
    fc.tuple(name, ports).map((parts) => parts.join('')),
    { minLength: 1, maxLength: 2 },
  )
  .map((parts) => parts.join(' + '));
/** What may be said of the ports of a cable. */
export const portWords = fc
  .subarray(['10G', 'trunk 15,25-29', 'native 15', '100M'])
  .map((words) => (words.includes('100M') ? words.filter((w) => w !== '10G') : words).join(' '));
/** A line. */
export const line: fc.Arbitrary<string> = fc.oneof(
  fc
    .tuple(side, fc.constantFrom('=', '*'), side, portWords, fc.constantFrom('', 'cut', 'uncut'))
    .map((parts) => parts.join(' ')),
  fc
    .tuple(
      name,
      fc.subarray([
        'core',
        'per-vlan-rstp',
        'mac 02:00:00:00:00:aa',
        'at -12,3.5',
        'short-cost',
        'unpowered',
        'in north',
      ]),
    )
    .map(([who, words]) => `switch ${who} ${words.join(' ')}`),
  fc
    .tuple(
      name,
      ports.filter((p) => p !== ''),
      fc.subarray(['access 5', 'edge', 'down', 'number 9']),
    )
    .map(([who, which, words]) => `port ${who}${which} ${words.join(' ')}`),
  fc
    .tuple(name, side, fc.subarray(['vlan 15', 'mac 02:00:00:00:00:ab', '1G']))
    .map(([who, where, words]) => `host ${who} = ${where} ${words.join(' ')}`),
  fc.tuple(name, fc.subarray(['floor', 'in "East wing"'])).map(([who, words]) => `group ${who} ${words.join(' ')}`),
  fc.tuple(fc.constantFrom('pair', 'stack'), name, name).map(([word, one, other]) => `${word} ${one}, ${other}`),
  fc.constantFrom('vlan 15', 'vlan 60-79 "Halls" load 12.5', 'vlan 4094 load 0'),
);
