import fc from 'fast-check';
import { addressField, networkField, syslogField, webhookField, withinOf } from './asked';

const address = fc.array(fc.integer({ min: 0, max: 255 }), { minLength: 4, maxLength: 4 });
const bitsOf = (octets: readonly number[]): string => octets.map((each) => each.toString(2).padStart(8, '0')).join('');

it('has an address in a network exactly where their first bits are the same', () => {
  fc.assert(
    fc.property(address, address, fc.integer({ min: 0, max: 32 }), (network, asked, length) => {
      const within = withinOf(`198.51.100.0/32, ${network.join('.')}/${length}`);
      if (!within.ok) throw new Error(within.error);
      const isSame = bitsOf(network).slice(0, length) === bitsOf(asked).slice(0, length);
      expect(within.value(asked.join('.'))).toBe(isSame || asked.join('.') === '198.51.100.0');
    }),
  );
});

it('has nobody in no network, and no name in any', () => {
  expect(withinOf('').ok && withinOf(' , ').ok).toBe(true);
  for (const networks of ['', '0.0.0.0/0']) {
    const within = withinOf(networks);
    expect(within.ok && within.value('ridge-a')).toBe(false);
  }
});

it.each([
  [addressField, ['192.0.2.1', 'ridge-a', 'a.b-c.example'], ['', '-a', 'a b', 'a;b', 'a'.repeat(300), 'udp:x']],
  [
    networkField,
    ['192.0.2.0/24', '0.0.0.0/0', '192.0.2.9/32'],
    ['192.0.2.0', '192.0.2/24', '300.0.2.0/24', '192.0.2.0/33', 'x/8'],
  ],
  [
    webhookField,
    ['https://notices.example/knot', 'http://192.0.2.9:8080'],
    ['notices.example', 'ftp://x', 'https:///a'],
  ],
  [syslogField, ['192.0.2.9', 'log.example:514'], ['', 'a b', 'a:b', 'a:123456']],
])('takes what can be asked, and refuses the rest (%#)', (field, good, bad) => {
  expect(good.filter((text) => !field.safeParse(text).success)).toEqual([]);
  expect(bad.filter((text) => field.safeParse(text).success)).toEqual([]);
});
