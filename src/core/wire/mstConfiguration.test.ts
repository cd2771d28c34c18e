import { configurationDigest, sameConfiguration } from './mstConfiguration';

describe('the digest of a VLAN map (802.1Q 13.8)', () => {
  it('is the one that the standard gives where all VLANs are in the IST', () =>
    expect(configurationDigest(() => 0)).toBe('ac36177f50283cd4b83821d8ab26de62'));
  it('is the one that the standard gives where all VLANs are in instance 1', () =>
    expect(configurationDigest(() => 1)).toBe('e13a80f11ed0856acd4ee3476941c73b'));
  it('is the one that the standard gives where VLAN n is in instance n mod 32 + 1', () =>
    expect(configurationDigest((vid) => (vid % 32) + 1)).toBe('9d145c267dbe9fb5d893441be3ba08ce'));
  it('changes with any VLAN', () => {
    const one = (vid: number) => configurationDigest((each) => (each === vid ? 1 : 0));
    expect(new Set([1, 2, 2048, 4094].map(one)).size).toBe(4);
  });
});

it('a region is named by all three: name, revision and digest', () => {
  const ridge = { name: 'RIDGE', revision: 1, digest: configurationDigest(() => 0) };
  expect(sameConfiguration(ridge, { ...ridge })).toBe(true);
  for (const other of [{ name: 'Ridge' }, { revision: 2 }, { digest: configurationDigest(() => 1) }])
    expect(sameConfiguration(ridge, { ...ridge, ...other })).toBe(false);
});
