/** Simulations that know of each other by octets on cables alone: together they do what one does. */
import fc from 'fast-check';
import type { Design } from '../../model/document';
import type { SwitchId } from '../../model/ids';
import { SECOND } from '../../modes/entity';
import { meshDesign, networkOf, randomDesign } from '../../testing/networks';
import { tries } from '../../testing/runs';
import { compileNetwork } from '../../topology/network';
import { encodeFrame, BRIDGE_GROUP } from '../../wire/ethernet';
import { encodeBpdu } from '../../wire/bpdu';
import { differenceText, judgeLab } from './judge';
import { JoinedSwitches } from './joined';
import { labDesign, labTree } from './labDesign';

/** What frames take from one end of a cable to the other. */
const ON_THE_WIRE = 100;

/** Each switch of some sets in a simulation of its own. */
class Wired {
  private readonly parts: readonly { readonly ids: ReadonlySet<SwitchId>; readonly switches: JoinedSwitches }[];
  private readonly flying: { readonly t: number; readonly arrive: () => void }[] = [];
  private now = 0;
  private design: Design;

  constructor(design: Design, sets: readonly ReadonlySet<SwitchId>[]) {
    this.design = design;
    const network = compileNetwork(design);
    this.parts = sets.map((ids, seed) => ({
      ids,
      switches: new JoinedSwitches(
        design,
        ids,
        (end, octets) => {
          const far = network.plug[network.portIndexOf(end.switch, end.port)]!;
          if (far < 0) return;
          const there = { switch: network.switches[network.owner[far]!]!.id, port: network.ports[far]!.id as never };
          const part = this.parts.find((each) => each.ids.has(there.switch));
          this.flying.push({ t: this.now + ON_THE_WIRE, arrive: () => part?.switches.hear(there, octets) });
        },
        seed + 1,
      ),
    }));
    for (const { switches } of this.parts) switches.boot();
  }

  run(seconds: number): this {
    const end = this.now + seconds * SECOND;
    for (;;) {
      const next = Math.min(this.flying[0]?.t ?? Infinity, ...this.parts.map(({ switches }) => switches.next));
      if (next > end) break;
      this.now = Math.max(this.now, next);
      for (const { switches } of this.parts) switches.runTo(this.now);
      while (this.flying[0] && this.flying[0].t <= this.now) this.flying.shift()!.arrive();
    }
    this.now = end;
    for (const { switches } of this.parts) switches.runTo(end);
    return this;
  }

  follow(design: Design): this {
    this.design = design;
    for (const { switches } of this.parts) switches.follow(design);
    return this;
  }

  get wrong(): string[] {
    const readings = new Map(this.parts.flatMap(({ switches }) => [...switches.readings()]));
    const notes = this.parts.flatMap(({ switches }) => [...switches.notes]);
    return [...judgeLab(this.design, readings).differences.map(differenceText), ...notes];
  }
}

const networks = fc.oneof(meshDesign, randomDesign('standard', 6), randomDesign('perVlan', 5)).map((given) => {
  const all = new Set(given.switches.map(({ id }) => id));
  return labDesign(given, 'ovs', labTree(given), { joined: all }).design;
});
const halves = (design: Design, cut: number): Set<SwitchId>[] => {
  const sets = [new Set<SwitchId>(), new Set<SwitchId>()];
  design.switches.forEach(({ id }, s) => sets[(cut >> s) & 1]!.add(id));
  return sets;
};
/** Long enough for what is old to die, and for two forward delays. */
const REST = 100;

it('comes to what is solved, in two simulations joined by cables, also once a cable is cut', () => {
  fc.assert(
    fc.property(networks, fc.nat(255), fc.nat(), (design, cut, link) => {
      const wired = new Wired(design, halves(design, cut)).run(REST);
      expect(wired.wrong).toEqual([]);
      if (design.links.length === 0) return;
      const gone = link % design.links.length;
      const broken = { ...design, links: design.links.map((each, l) => ({ ...each, up: each.up && l !== gone })) };
      expect(wired.follow(broken).run(REST).wrong).toEqual([]);
    }),
    { numRuns: tries(25) },
  );
});

it('bundles by LACP over cables to another simulation, and finds another member when one goes', () => {
  const design = (up: boolean): Design =>
    networkOf(
      { a: { priority: 4096 }, b: {}, c: {} },
      ['a 1 = b 1', 'a 2 = b 2', 'b 3 = c 1', 'c 2 = a 3'],
      { 'a 1': { up } },
      {
        bundles: [
          { id: 'x', number: 1, switch: 'a', ports: ['1', '2'], mode: 'active', timeout: 'fast' },
          { id: 'y', number: 1, switch: 'b', ports: ['1', '2'], mode: 'passive', timeout: 'fast' },
        ],
      },
    );
  const [whole, less] = [true, false].map(
    (up) => labDesign(design(up), 'ovs', 'cst' as never, { joined: ids('abc') }).design,
  ) as [Design, Design];
  const wired = new Wired(whole, [ids('ac'), ids('b')]).run(REST);
  expect(wired.wrong).toEqual([]);
  expect(wired.follow(less).run(REST).wrong).toEqual([]);
});
const ids = (names: string): Set<SwitchId> => new Set([...names] as SwitchId[]);

it('says what it hears and does not understand', () => {
  const design = networkOf({ a: {}, b: {} }, ['a 1 = b 1']);
  const joined = new JoinedSwitches(design, ids('a'), () => {});
  joined.boot();
  const at = { switch: 'a', port: '1' } as never;
  const stranger = { priority: 0, mac: '02:99:00:00:00:01' };
  const info = {
    root: stranger,
    bridge: stranger,
    rootPathCost: 0,
    port: 1,
    messageAge: 0,
    maxAge: 20,
    hello: 2,
    forwardDelay: 15,
    tc: false,
  };
  const frame = (bpdu: Uint8Array) => encodeFrame({ to: BRIDGE_GROUP, from: stranger.mac, vlan: null, bpdu });
  joined.hear(at, frame(encodeBpdu({ kind: 'config', tcAck: false, ...info })));
  joined.hear(at, frame(Uint8Array.of(0, 7)));
  joined.hear(at, Uint8Array.of(1));
  joined.runTo(SECOND);
  expect([...joined.notes]).toEqual([
    'a port 1: a BPDU that tells of a bridge which the design does not have',
    'a port 1: protocol identifier 7, not 0',
  ]);
});
