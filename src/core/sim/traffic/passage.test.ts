/** Frames followed hop by hop, and broadcasts that circle. */
import fc from 'fast-check';
import { fernhollow } from '../../demo/demos';
import type { HostId } from '../../model/ids';
import { anyDesign, meshDesign, networkOf, solutionOf } from '../../testing/networks';
import { MOST_COPIES, forwardingLoops } from './loops';
import { followFlood, followFrame, settledPassage } from './passage';

const way = (from: string, to: string, design = fernhollow()) =>
  followFrame(settledPassage(solutionOf(design)), from as HostId, to as HostId);
const off = { dialect: 'off' };
const ring = (count: number, more: readonly string[] = []) => {
  const names = Array.from({ length: count }, (_, i) => `s${i}`);
  return networkOf(Object.fromEntries(names.map((name) => [name, off])), [
    ...names.map((name, i) => `${name} 1 = s${(i + 1) % count} 2`),
    ...more,
  ]);
};

describe('a frame', () => {
  it('goes from the camera to the image store through the lodge, as the demo ships', () => {
    const found = way('camera-recorder', 'image-store');
    expect(found.arrives && found.hops.map((hop) => `${hop.switch} ${hop.in}>${hop.out}`)).toEqual([
      'dome-north 6>1',
      'ridge-a 3>7',
      'lodge 1>2',
      'ridge-b 7>image-store-cards',
    ]);
    expect(found.arrives && found.hops.map((hop) => hop.link)).toEqual(['l3', 'l13', 'l14', null]);
  });
  it.each([
    ['camera-recorder', 'weather-mast', 'Camera recorder is in VLAN 25, Weather mast in VLAN 35'],
    ['camera-recorder', 'nobody', 'There is no host nobody.'],
  ])('that cannot arrive says why: %s to %s', (from, to, why) =>
    expect(way(from, to)).toMatchObject({ arrives: false, why: expect.stringContaining(why) }),
  );
  it('says where its frames end, and which card is dead', () => {
    const demo = fernhollow();
    const cut = { ...demo, links: demo.links.map((link) => ({ ...link, up: !['l3', 'l4'].includes(link.id) })) };
    expect(way('camera-recorder', 'image-store', cut)).toMatchObject({
      arrives: false,
      why: expect.stringContaining('reach no other switch, but not ridge-b'),
    });
    const dead = {
      ...demo,
      switches: demo.switches.map((sw) => ({
        ...sw,
        ports: sw.ports.map((port) => ({ ...port, up: !(sw.id === 'dome-north' && port.id === '6') })),
      })),
    };
    expect(way('camera-recorder', 'image-store', dead)).toMatchObject({
      why: 'No port that Camera recorder is plugged into forwards VLAN 25.',
    });
  });
  it('comes back the way that it went', () => {
    const back = way('image-store', 'camera-recorder');
    const there = way('camera-recorder', 'image-store');
    expect(back.arrives && there.arrives && back.hops.map((hop) => hop.switch).reverse()).toEqual(
      there.arrives && there.hops.map((hop) => hop.switch),
    );
  });
});

describe('a frame to an unknown destination', () => {
  it('gets to every host that its sender reaches, over the links of the tree alone', () => {
    fc.assert(
      fc.property(meshDesign, (design) => {
        const passage = settledPassage(solutionOf(design));
        for (const host of design.hosts) {
          const flood = followFlood(passage, host.id);
          const reached = design.hosts
            .filter((other) => other !== host && followFrame(passage, host.id, other.id).arrives)
            .map((other) => other.id);
          expect(new Set(flood.hosts)).toEqual(new Set(reached));
          expect(flood.switches.length).toBeLessThanOrEqual(design.switches.length);
        }
      }),
    );
  });
  it('is copied onto a link whose far end discards it, and goes no further there', () => {
    const flood = followFlood(settledPassage(solutionOf(fernhollow())), 'camera-recorder' as HostId);
    expect(flood.links).toEqual(expect.arrayContaining(['l3', 'l13', 'l14']));
    expect(flood.hosts).toContain('image-store');
    expect(followFlood(settledPassage(solutionOf(fernhollow())), 'nobody' as HostId).hosts).toEqual([]);
  });
});

describe('a broadcast', () => {
  it('circles nowhere where every switch runs spanning tree', () => {
    fc.assert(
      fc.property(meshDesign, (design) => expect(forwardingLoops(settledPassage(solutionOf(design)), 1)).toBeNull()),
    );
  });
  it('circles where, and only where, forwarding links close a loop', () => {
    fc.assert(
      fc.property(anyDesign, (design) => {
        const passage = settledPassage(solutionOf(design));
        const { network } = passage;
        const lead = Array.from(network.switches.keys());
        const leadOf = (s: number): number => (lead[s] === s ? s : leadOf(lead[s]!));
        let loops = false;
        for (const { a, b } of design.links) {
          const [p, q] = [network.portIndexOf(a.switch, a.port), network.portIndexOf(b.switch, b.port)];
          if (![p, q].every((port) => passage.passes(1, port) && passage.carries(port))) continue;
          const [x, y] = [leadOf(network.owner[p]!), leadOf(network.owner[q]!)];
          if (x === y) loops = true;
          lead[x] = y;
        }
        expect(forwardingLoops(passage, 1) !== null).toBe(loops);
      }),
    );
  });
  it('goes round a simple ring for ever, and multiplies where a switch has a third way', () => {
    const simple = forwardingLoops(settledPassage(solutionOf(ring(4))), 1)!;
    expect(simple.links).toEqual(['l0', 'l1', 'l2', 'l3']);
    expect(new Set(simple.copies)).toEqual(new Set([2]));
    expect(simple.flapping).toHaveLength(4);
    const crossed = forwardingLoops(settledPassage(solutionOf(ring(4, ['s0 3 = s2 3', 's1 3 = s3 3']))), 1)!;
    expect(crossed.copies.slice(0, 4)).toEqual([3, 6, 12, 24]);
    expect(crossed.copies.at(-1)).toBe(MOST_COPIES);
  });
  it('leaves out the links that lead nowhere', () => {
    const tailed = networkOf(Object.fromEntries(['s0', 's1', 's2', 's3', 's4'].map((name) => [name, off])), [
      's0 1 = s1 2',
      's1 1 = s2 2',
      's2 1 = s0 2',
      's0 3 = s3 1',
      's3 2 = s4 1',
    ]);
    expect(forwardingLoops(settledPassage(solutionOf(tailed)), 1)!.links).toEqual(['l0', 'l1', 'l2']);
  });
});
