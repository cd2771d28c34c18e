/** What goes over the cables, read back by ourselves and by the packet analyser. */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Design } from '../../model/document';
import { networkOf } from '../../testing/networks';
import { decodeBpdu } from '../../wire/bpdu';
import { BRIDGE_GROUP, PER_VLAN_GROUP, decodeFrame } from '../../wire/ethernet';
import { decodeLacpFrame } from '../../wire/lacpdu';
import { encodePcapng, type Capture } from '../../wire/pcapng';
import { compileNetwork } from '../../topology/network';
import { captureOf } from './capture';
import { readScenario } from '../scenario/scenario';
import { simulate } from '../simulate';

const captured = (design: Design, actions: object[] = [], until = 40): Capture => {
  const scenario = readScenario({ actions, until }, design);
  if (!scenario.ok) throw new Error(scenario.error[0]!.found);
  const run = simulate(design, scenario.value, { fromBoot: true });
  if (!run.ok) throw new Error(run.error);
  const { design: ran, final } = run.value;
  return captureOf(
    compileNetwork(ran),
    final.trees.map((tree) => tree.id),
    run.value,
  );
};
const per = { dialect: 'per-vlan-rstp' };
const region = { dialect: 'mstp', region: 'ridge' };
/** A classic bridge, rapid ones, two of a region, and two that run a tree for each VLAN: every kind of BPDU goes over some cable. */
const everyKind = networkOf(
  { a: { priority: 0 }, b: { dialect: 'stp' }, c: {}, d: per, e: per, f: region, g: region },
  ['a 1 = b 1', 'b 2 = c 2', 'a 2 = c 1', 'a 3 = d 1', 'd 2 = e 1', 'a 4 = f 1', 'f 2 = g 1', 'g 2 = c 3'],
  {},
  {
    vlans: [{ id: 15 }],
    regions: [
      {
        id: 'ridge',
        name: 'RIDGE',
        revision: 7,
        instances: [
          { id: 1, vlans: '15' },
          { id: 9, vlans: '20-29' },
        ],
      },
    ],
  },
);
const cut = [{ at: 32, do: 'link-down', link: 'l2' }];
const frames = (capture: Capture) =>
  capture.frames.map(({ octets, ...rest }) => {
    const frame = decodeFrame(octets);
    if (!frame.ok) throw new Error(frame.error);
    const bpdu = decodeBpdu(frame.value.bpdu);
    if (!bpdu.ok) throw new Error(bpdu.error);
    return { ...rest, ...frame.value, bpdu: bpdu.value, on: capture.interfaces[rest.at]! };
  });

it('captures every kind of BPDU, each on its link, in its VLAN, with its address', () => {
  const seen = frames(captured(everyKind, cut));
  expect(new Set(seen.map((frame) => frame.bpdu.kind))).toEqual(new Set(['config', 'tcn', 'rst', 'mst']));
  const inVlan = seen.filter((frame) => frame.vlan === 15);
  expect(inVlan.length).toBeGreaterThan(0);
  expect(inVlan.every((frame) => frame.to === PER_VLAN_GROUP && /^06:00:00:0[45]:00:/.test(frame.from))).toBe(true);
  // The tree of VLAN 1 speaks both forms between bridges that run one for each VLAN.
  expect(
    new Set(seen.filter((frame) => frame.on === 'd 2 = e 1' && frame.vlan === null).map((frame) => frame.to)),
  ).toEqual(new Set([BRIDGE_GROUP, PER_VLAN_GROUP]));
  expect(seen.every((frame, i) => i === 0 || frame.t >= seen[i - 1]!.t)).toBe(true);
});

const folder = mkdtempSync(path.join(tmpdir(), 'knot-path-capture-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const analyser = spawnSync('tshark', ['--version']).error ? it.skip : it;
analyser('is read by the packet analyser without a malformed frame, each frame as what it is', () => {
  const capture = captured(everyKind, cut);
  const file = path.join(folder, 'run.pcapng');
  writeFileSync(file, encodePcapng(capture));
  const read = (...args: string[]) =>
    spawnSync('tshark', ['-r', file, '-T', 'fields', ...args], { encoding: 'utf8', maxBuffer: 64 * 1024 * 1024 })
      .stdout.split('\n')
      .filter(Boolean);
  expect(read('-Y', '_ws.malformed || _ws.expert.severity == error', '-e', 'frame.number')).toEqual([]);
  // Of MST BPDUs: its region's digest is that of its map, as the analyser sees it, and so are its instances.
  const regions = frames(capture).flatMap(({ bpdu }) =>
    bpdu.kind === 'mst' ? [`RIDGE\t7\t${bpdu.mst.configurationId.digest}\t1,9`] : [],
  );
  expect(regions.length).toBeGreaterThan(10);
  expect(
    read(
      '-Y',
      'stp.version == 3',
      '-e',
      'mstp.config_name',
      '-e',
      'mstp.config_revision_level',
      '-e',
      'mstp.config_digest',
      '-e',
      'mstp.msti.msti_id',
    ),
  ).toEqual(regions);
  const lines = read(
    '-e',
    'stp.type',
    '-e',
    'stp.root.hw',
    '-e',
    'stp.root.cost',
    '-e',
    'vlan.id',
    '-e',
    'frame.interface_name',
  ).map((line) => line.split('\t'));
  expect(lines).toHaveLength(capture.frames.length);
  const types = { config: '0x00', rst: '0x02', mst: '0x02', tcn: '0x80' } as const;
  frames(capture).forEach(({ bpdu, vlan, on }, i) => {
    expect(lines[i]).toEqual([
      types[bpdu.kind],
      bpdu.kind === 'tcn' ? '' : bpdu.root.mac,
      bpdu.kind === 'tcn' ? '' : String(bpdu.rootPathCost),
      vlan === null ? '' : String(vlan),
      on,
    ]);
  });
});

const bundled = networkOf(
  { a: { priority: 0 }, b: {} },
  ['a 1 = b 1', 'a 2 = b 2'],
  {},
  {
    bundles: [
      { id: 'at-a', switch: 'a', number: 3, ports: ['1', '2'], timeout: 'fast' },
      { id: 'at-b', switch: 'b', number: 4, ports: ['1', '2'], mode: 'passive' },
    ],
  },
);
it('has LACPDUs on every member, and BPDUs on one', () => {
  const capture = captured(bundled);
  const lacp = capture.frames.flatMap(({ at, octets }) => {
    const frame = decodeLacpFrame(octets);
    return frame.ok ? [{ on: capture.interfaces[at]!, ...frame.value }] : [];
  });
  expect(new Set(lacp.map((frame) => frame.on))).toEqual(new Set(['a 1 = b 1', 'a 2 = b 2']));
  // Each port speaks by its own address.
  expect(new Set(lacp.map((frame) => `${frame.on} ${frame.from}`))).toEqual(
    new Set(['1', '2'].flatMap((n) => ['01', '02'].map((sw) => `a ${n} = b ${n} 06:00:00:${sw}:00:0${n}`))),
  );
  const last = lacp.filter((frame) => frame.from.startsWith('06:00:00:01:')).at(-1)!;
  // Activity, timeout, aggregation, synchronization, collecting, distributing; the passive partner wants to hear slowly.
  expect([last.actor.key, last.actor.state, last.partner.key, last.partner.state]).toEqual([
    3, 0b0011_1111, 4, 0b0011_1100,
  ]);
  const bpdus = capture.frames.filter(({ octets }) => !decodeLacpFrame(octets).ok && decodeFrame(octets).ok);
  expect(new Set(bpdus.filter(({ t }) => t > 10_000_000).map(({ at }) => capture.interfaces[at]!))).toEqual(
    new Set(['a 1 = b 1']),
  );
});

analyser('has its LACPDUs read by the packet analyser, bit by bit', () => {
  const capture = captured(bundled);
  const file = path.join(folder, 'lacp.pcapng');
  writeFileSync(file, encodePcapng(capture));
  const read = (...args: string[]) =>
    spawnSync('tshark', ['-r', file, '-T', 'fields', ...args], { encoding: 'utf8', maxBuffer: 64 * 1024 * 1024 })
      .stdout.split('\n')
      .filter(Boolean);
  expect(read('-Y', '_ws.malformed || _ws.expert.severity == error', '-e', 'frame.number')).toEqual([]);
  const ours = capture.frames.flatMap(({ octets }) => {
    const frame = decodeLacpFrame(octets);
    return frame.ok
      ? [
          [
            frame.value.actor.system,
            frame.value.actor.key,
            frame.value.actor.port,
            frame.value.partner.system,
            frame.value.partner.key,
          ].join('\t'),
        ]
      : [];
  });
  expect(ours.length).toBeGreaterThan(20);
  expect(
    read(
      '-Y',
      'lacp',
      '-e',
      'lacp.actor.sysid',
      '-e',
      'lacp.actor.key',
      '-e',
      'lacp.actor.port',
      '-e',
      'lacp.partner.sysid',
      '-e',
      'lacp.partner.key',
    ),
  ).toEqual(ours);
});
