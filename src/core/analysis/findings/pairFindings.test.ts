/** Findings about pairs, and that their remedies end them. */
import { editAll } from '../../edit/edit';
import type { Design } from '../../model/document';
import { problemText } from '../../model/problem';
import { pairedNetwork, type PairedOptions } from '../../testing/pairs';
import { solve } from '../../tree/solve';
import { findingsOf } from './findings';
import { pairFindings } from './pairFindings';

const rules = (design: Design) => pairFindings(design).map(({ rule }) => rule);
const mended = (design: Design, rule: string) => {
  const [remedy] = pairFindings(design).find((finding) => finding.rule === rule)!.remedies;
  const edited = editAll(design, remedy!.commands);
  if (!edited.ok) throw new Error(problemText(edited.error));
  return rules(edited.value.design);
};
const cut = (design: Design, ...ids: string[]): Design => ({
  ...design,
  links: design.links.map((link) => (ids.includes(link.id) ? { ...link, up: false } : link)),
});

it('there are none of a pair with everything right, whose bundles are whole', () => {
  expect(rules(pairedNetwork())).toEqual([]);
  const design = pairedNetwork();
  const about = findingsOf(design, solve(design)).map(({ rule }) => rule);
  expect(about).not.toContain('bundle-single');
  expect(about).not.toContain('bundle-split');
});

it.each<[string, PairedOptions]>([
  ['pair-half', { half: { s: { domain: 8, priority: 20 } } }],
  ['pair-unlike', { switches: { s: { dialect: 'stp' } } }],
  ['pair-unlike', { half: { s: { mac: '02:00:00:00:0a:02' } } }],
  ['pair-keepalive', { half: { p: { keepalive: 'peer-link', keepalivePort: undefined } } }],
  ['pair-bundle-unlike', { bundles: { 's-x': { key: 9 } } }],
  ['pair-bundle-unlike', { bundles: { 's-x': { mode: 'passive' } } }],
  ['pair-priorities', { switches: { p: { priority: 4096 } } }],
  ['pair-priorities', { switches: { s: { trees: { cst: { priority: 4096 } } } } }],
  ['pair-peer-vlans', { bundles: { 'peer-p': { vlans: { mode: 'trunk', allowed: '15' } } } }],
])('%s is found and mended: %j', (rule, options) => {
  const design = pairedNetwork(options);
  expect(rules(design)).toContain(rule);
  expect(mended(design, rule)).not.toContain(rule);
});

it('a lost peer link is told by what the keepalive makes of it', () => {
  const network = pairedNetwork();
  expect(rules(cut(network, 'l0', 'l1'))).toEqual(['pair-apart']);
  expect(mended(cut(network, 'l0', 'l1'), 'pair-apart')).toEqual([]);
  expect(rules(cut(network, 'l0', 'l1', 'l2'))).toEqual(['pair-twice', 'pair-keepalive-lost']);
  expect(rules(cut(network, 'l2'))).toEqual(['pair-keepalive-lost']);
});

it('bundles with one half, and hosts with all cards in one switch', () => {
  expect(rules(pairedNetwork({ bundles: { 's-y': { pairNumber: 9 } } }))).toEqual([
    'pair-bundle-half',
    'pair-bundle-half',
  ]);
  const host = (...attach: object[]) => ({ id: 'h', mac: '02:00:00:00:99:01', vlan: 1, attach });
  const [one, other] = [
    { switch: 's', port: '8' },
    { switch: 's', port: '9' },
  ];
  const hung = (...attach: object[]) =>
    rules(pairedNetwork({ ports: { 's 8': {}, 's 9': {}, 'p 9': {} }, rest: { hosts: [host(...attach)] } }));
  expect([hung(one, other), hung(one, { switch: 'p', port: '9' }), hung(one)]).toEqual([['pair-orphans'], [], []]);
});
