/** A bridge of a region by itself, with neighbours played to it: what instances add to the machines (IEEE 802.1Q-2018 clause 13). */
import { COST, EntityBench, OWN, config, mst, msti, rst, type Sent } from '../../testing/entity';
import type { MstBpdu } from '../bpdu';
import type { RegionSettings } from '../entity';
import { rstpEntity } from './entity';

const RIDGE = { name: 'RIDGE', revision: 1, digest: '00' };
const VALLEY = { ...RIDGE, revision: 2 };
const BETTER = 5;
const WORSE = 900;
/** The bridge is the worse one in instance 1, where its costs are 500. */
const region = (ports: number): RegionSettings => ({
  configurationId: RIDGE,
  instances: [
    {
      mstid: 1,
      bridge: OWN,
      ports: Array.from({ length: ports }, (_, i) => ({ id: 0x8001 + i, cost: { external: 500, internal: 500 } })),
    },
  ],
});
const bridge = (ports: number) => new EntityBench(rstpEntity, ports, [], {}, region(ports));
const last = (sent: readonly Sent['bpdu'][]): MstBpdu => {
  const bpdu = sent.at(-1);
  if (bpdu?.kind !== 'mst') throw new Error(`${bpdu?.kind ?? 'nothing'} was sent`);
  return bpdu;
};
const is = (own: EntityBench, port: number, tree: number) =>
  `${own.entity.role(port, tree)} ${own.entity.state(port, tree)}`;
const asking = { proposal: true, learning: false, forwarding: false };
/** A neighbour of the region that is the root of both trees. */
const inRegion = (flags = {}) => mst({ root: BETTER }, RIDGE, [msti(1, { root: BETTER }, flags)], flags);

describe('inside the region', () => {
  it('speaks of the CIST and of every instance in one BPDU (txMstp)', () => {
    const alone = bridge(1).to(0.1);
    expect(last(alone.from(0))).toMatchObject({
      role: 'designated',
      configurationId: RIDGE,
      vector: { root: OWN, regionalRoot: OWN, internalCost: 0 },
      times: { remainingHops: 20 },
    });
    expect(last(alone.from(0)).instances).toEqual([
      expect.objectContaining({ mstid: 1, role: 'designated', proposal: true, master: false, remainingHops: 20 }),
    ]);
  });
  it('adds internal cost, keeps the external one, and counts a hop, not a second (13.9)', () => {
    const own = bridge(2)
      .to(1)
      .hear(
        0,
        mst({ root: 3, cost: 70, regionalRoot: BETTER, internalCost: 9, bridge: 8, messageAge: 4 }, RIDGE, [], {}),
      );
    expect(own.entity.rootVector()).toMatchObject({
      root: 3,
      externalCost: 70,
      regionalRoot: BETTER,
      internalCost: COST + 9,
    });
    expect(last(own.to(3.5).from(1))).toMatchObject({
      times: { messageAge: 4, remainingHops: 19 },
      vector: { root: 3, regionalRoot: BETTER, bridge: OWN },
    });
  });
  it('each tree has its own root, costs and agreement', () => {
    const own = bridge(2)
      .to(1)
      .hear(0, mst({ root: BETTER }, RIDGE, [msti(1, { root: WORSE }, asking)], asking))
      .hear(
        1,
        mst({ root: WORSE }, RIDGE, [msti(1, { root: BETTER }, asking)], { learning: false, forwarding: false }),
      );
    expect([is(own, 0, 0), is(own, 0, 1), is(own, 1, 1)]).toEqual([
      'root forwarding',
      'designated discarding',
      'root forwarding',
    ]);
    expect(own.entity.rootVector(1)).toMatchObject({ regionalRoot: BETTER, internalCost: 500 });
    expect(last(own.from(1)).instances[0]).toMatchObject({ role: 'root', agreement: true });
  });
  it("takes an instance's agreement only where the CIST is the same on both sides (recordAgreement)", () => {
    const agrees = (regionalRoot: number) =>
      mst(
        { root: OWN, regionalRoot, internalCost: COST, bridge: WORSE },
        RIDGE,
        [msti(1, { root: OWN, cost: 500, bridge: WORSE }, { role: 'root', agreement: true })],
        { role: 'root', agreement: true },
      );
    expect(is(bridge(1).to(1).hear(0, agrees(WORSE)), 0, 1)).toBe('designated discarding');
    expect(is(bridge(1).to(1).hear(0, agrees(OWN)), 0, 1)).toBe('designated forwarding');
  });
  it('a message that has come too far is not believed (updtRcvdInfoWhile)', () => {
    const heard = (hops: number) =>
      bridge(1)
        .to(1)
        .hear(0, { ...inRegion(), instances: [msti(1, { root: BETTER }, {}, hops)] })
        .to(1.1)
        .entity.rootVector(1).regionalRoot;
    expect([heard(2), heard(1)]).toEqual([BETTER, OWN]);
  });
  it('a topology change of an instance flushes that instance alone (TCM, setTcPropTree)', () => {
    const both = (tc: boolean) => mst({ root: BETTER }, RIDGE, [msti(1, { root: BETTER }, { tc })]);
    const agreed = mst(
      { root: BETTER, regionalRoot: BETTER, internalCost: 2 * COST, bridge: WORSE },
      RIDGE,
      [msti(1, { root: BETTER, cost: 1000, bridge: WORSE }, { role: 'root', agreement: true })],
      { role: 'root', agreement: true },
    );
    const own = bridge(2).to(1).hear(0, inRegion(asking)).hear(1, agreed).hearing(15, 0, both(false));
    own.flushedIn.length = 0;
    own.hear(0, both(true));
    expect(own.flushedIn).toEqual([[1, 1]]);
    expect(last(own.from(1)).instances[0]!.tc).toBe(true);
    expect(last(own.from(1)).tc).toBe(false);
  });
});

describe('at the boundary', () => {
  it('another region, or a rapid bridge, is reached at external cost, and the bridge is the regional root (13.9)', () => {
    for (const bpdu of [
      mst({ root: BETTER, regionalRoot: 7, internalCost: 44, bridge: 8 }, VALLEY, [msti(1, { root: 1 })]),
      rst({ root: BETTER, bridge: 7 }),
    ]) {
      const own = bridge(1).to(1).hear(0, bpdu);
      expect(own.entity.rootVector()).toMatchObject({
        root: BETTER,
        externalCost: COST,
        regionalRoot: OWN,
        internalCost: 0,
      });
      expect([own.entity.role(0), own.entity.role(0, 1), own.entity.inside(0)]).toEqual(['root', 'master', false]);
    }
  });
  it('an instance follows the CIST: its port to the root outside is master port, and forwards with it', () => {
    const own = bridge(2)
      .to(1)
      .hear(0, rst({ root: BETTER }, asking))
      .hear(1, rst({ root: BETTER, bridge: 30 }, asking));
    expect([is(own, 0, 0), is(own, 0, 1)]).toEqual(['root forwarding', 'master forwarding']);
    expect([is(own, 1, 0), is(own, 1, 1)]).toEqual(['alternate discarding', 'alternate discarding']);
  });
  it('tells the region that it has a way out (master)', () => {
    const own = bridge(2)
      .to(1)
      .hear(0, rst({ root: BETTER }, asking))
      .to(4);
    expect(last(own.from(1)).instances[0]).toMatchObject({ role: 'designated', master: true });
  });
  it('agreement from outside is agreement for every instance', () => {
    const own = bridge(1)
      .to(1)
      .hear(0, rst({ root: OWN, cost: COST, bridge: WORSE }, { role: 'root', agreement: true }));
    expect([is(own, 0, 0), is(own, 0, 1)]).toEqual(['designated forwarding', 'designated forwarding']);
  });
  it('a classic neighbour hears configuration BPDUs of the bridge itself', () => {
    const own = bridge(1).hearing(10, 0, config({ root: WORSE }));
    expect(own.from(0, 8).at(-1)).toMatchObject({
      kind: 'config',
      vector: { root: OWN, bridge: OWN, regionalRoot: OWN },
    });
  });
  it('a neighbour that has joined the region is inside at its next word', () => {
    const own = bridge(1)
      .to(1)
      .hear(0, rst({ root: BETTER }, asking));
    own.hear(0, inRegion(asking));
    expect([own.entity.inside(0), own.entity.role(0, 1)]).toEqual([true, 'root']);
  });
});

it('a rapid bridge takes the regional root for its neighbour (14.4)', () => {
  const own = new EntityBench(rstpEntity, 1)
    .to(1)
    .hear(
      0,
      mst({ root: BETTER, regionalRoot: 7, internalCost: 44, bridge: 8 }, RIDGE, [msti(1, { root: 1 })], asking),
    );
  expect(own.entity.rootVector()).toMatchObject({ root: BETTER, externalCost: COST });
  expect(own.is(0)).toBe('root forwarding');
});
