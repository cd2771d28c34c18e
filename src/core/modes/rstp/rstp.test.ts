/** A rapid bridge by itself, with neighbours played to it: each statement is one of the clause's machines (IEEE 802.1Q-2018 13.30 to 13.39). */
import { EntityBench, OWN, config, rst, type Sent } from '../../testing/entity';
import type { RstBpdu } from '../bpdu';
import { rstpEntity } from './entity';

const BETTER = 5;
const WORSE = 900;
const bridge = (ports: number, edges: readonly number[] = [], times = {}) =>
  new EntityBench(rstpEntity, ports, edges, times);
const last = (sent: readonly Sent['bpdu'][]): RstBpdu => {
  const bpdu = sent.at(-1);
  if (bpdu?.kind !== 'rst') throw new Error(`${bpdu?.kind ?? 'nothing'} was sent`);
  return bpdu;
};
const proposal = (said: Parameters<typeof rst>[0]) => rst(said, { proposal: true, learning: false, forwarding: false });

describe('alone', () => {
  it('takes itself for the root, and asks on every port whether it may forward (PRT DESIGNATED_PROPOSE)', () => {
    const alone = bridge(2).to(0.1);
    expect([alone.entity.rootVector().root, alone.entity.rootVector().externalCost, alone.entity.rootPort()]).toEqual([
      OWN,
      0,
      -1,
    ]);
    expect([alone.is(0), alone.is(1)]).toEqual(['designated discarding', 'designated discarding']);
    expect(last(alone.from(0))).toMatchObject({
      role: 'designated',
      proposal: true,
      learning: false,
      forwarding: false,
      vector: { root: OWN, externalCost: 0, bridge: OWN, port: 0x8001 },
    });
  });
  it('finds after the migrate time that nobody answers, and forwards (BDM EDGE)', () => {
    const alone = bridge(1).to(2.99);
    expect(alone.is(0)).toBe('designated discarding');
    expect(alone.to(3).is(0)).toBe('designated forwarding');
  });
  it('forwards at once on a port that is set as an edge port', () =>
    expect(bridge(2, [0]).to(0).is(0)).toBe('designated forwarding'));
  it('speaks each hello time, its own (PTX TRANSMIT_PERIODIC)', () => {
    expect(bridge(1).to(40).from(0, 20.5)).toHaveLength(10);
    expect(bridge(1, [], { hello: 1 }).to(40).from(0, 20.5)).toHaveLength(20);
  });
  it('is quiet on a port without signal', () => {
    const alone = bridge(1).to(5);
    alone.entity.enable(0, false);
    expect(alone.is(0)).toBe('disabled disabled');
    expect(alone.to(20).from(0, 5.01)).toEqual([]);
  });
});

describe('a better bridge', () => {
  it('is agreed with in the same moment, and its port forwards (PIM SUPERIOR_DESIGNATED, PRT ROOT_AGREED)', () => {
    const own = bridge(1)
      .to(1)
      .hear(0, proposal({ root: BETTER }));
    expect(own.is(0)).toBe('root forwarding');
    expect([own.entity.rootVector().root, own.entity.rootVector().externalCost, own.entity.rootPort()]).toEqual([
      BETTER,
      20_000,
      0,
    ]);
    expect(last(own.from(0))).toMatchObject({ role: 'root', agreement: true, proposal: false });
  });
  it('leaves a port forwarding whose neighbour has agreed to worse (PIM UPDATE, betterorsameInfo)', () => {
    const own = bridge(2)
      .to(1)
      .hear(1, rst({ root: WORSE }, { role: 'root', agreement: true }))
      .hear(0, proposal({ root: BETTER }));
    expect([own.is(0), own.is(1)]).toEqual(['root forwarding', 'designated forwarding']);
  });
  it('with worse news has the other ports come into step first, but for edge ports (setSyncTree)', () => {
    const own = bridge(3, [2])
      .to(1)
      .hear(0, proposal({ root: BETTER }))
      .hear(1, rst({ root: BETTER, cost: 20_000, bridge: WORSE }, { role: 'root', agreement: true }));
    expect([own.is(1), own.is(2)]).toEqual(['designated forwarding', 'designated forwarding']);
    own.to(10).hear(0, proposal({ root: BETTER, cost: 5000 }));
    expect([own.is(0), own.is(1), own.is(2)]).toEqual([
      'root forwarding',
      'designated discarding',
      'designated forwarding',
    ]);
    expect(last(own.from(1))).toMatchObject({
      role: 'designated',
      proposal: true,
      vector: { root: BETTER, externalCost: 25_000 },
    });
  });
  it('at two ports is reached by the cheaper, then by the better neighbour, then by its better port, then by the own better port', () => {
    const roles = (...said: Parameters<typeof rst>[0][]) => {
      const own = bridge(2).to(1);
      said.forEach((each, port) => own.hear(port, proposal(each)));
      return [own.entity.role(0), own.entity.role(1)];
    };
    expect(roles({ root: BETTER, cost: 9, bridge: 30 }, { root: BETTER, cost: 8, bridge: 40 })).toEqual([
      'alternate',
      'root',
    ]);
    expect(roles({ root: BETTER, cost: 9, bridge: 40 }, { root: BETTER, cost: 9, bridge: 30 })).toEqual([
      'alternate',
      'root',
    ]);
    expect(
      roles({ root: BETTER, cost: 9, bridge: 30, port: 0x8002 }, { root: BETTER, cost: 9, bridge: 30, port: 0x8001 }),
    ).toEqual(['alternate', 'root']);
    expect(
      roles({ root: BETTER, cost: 9, bridge: 30, port: 0x8001 }, { root: BETTER, cost: 9, bridge: 30, port: 0x8001 }),
    ).toEqual(['root', 'alternate']);
  });
  it('at the alternate port is taken at once when the root port goes (PRT ROOT_PORT, reRooted)', () => {
    const own = bridge(2)
      .to(1)
      .hear(0, proposal({ root: BETTER }))
      .hear(1, rst({ root: BETTER, cost: 4, bridge: 30 }))
      .to(1.5);
    expect([own.is(0), own.is(1)]).toEqual(['root forwarding', 'alternate discarding']);
    own.entity.enable(0, false);
    expect(own.is(1)).toBe('root forwarding');
    expect(own.entity.rootVector().externalCost).toBe(20_004);
  });
  it('that falls silent is forgotten after three hellos (PIM AGED)', () => {
    const own = bridge(1)
      .to(1)
      .hear(0, rst({ root: BETTER }));
    expect(own.to(6.99).is(0)).toBe('root forwarding');
    expect(own.to(7).entity.rootVector().root).toBe(OWN);
    expect(own.entity.role(0)).toBe('designated');
  });
  it('lives on while it repeats itself (PIM REPEATED_DESIGNATED)', () =>
    expect(
      bridge(1)
        .to(1)
        .hearing(61, 0, rst({ root: BETTER }))
        .is(0),
    ).toBe('root forwarding'));
  it('whose information is too old is not believed (updtRcvdInfoWhile)', () => {
    expect(
      bridge(1)
        .to(1)
        .hear(0, rst({ root: BETTER, messageAge: 19 }))
        .to(1.1)
        .entity.rootVector().root,
    ).toBe(BETTER);
    expect(
      bridge(1)
        .to(1)
        .hear(0, rst({ root: BETTER, messageAge: 20 }))
        .to(1.1)
        .entity.rootVector().root,
    ).toBe(OWN);
  });
  it('may take its word back: a worse vector from the same port counts', () => {
    const own = bridge(1)
      .to(1)
      .hear(0, rst({ root: BETTER, bridge: 30 }))
      .hear(0, rst({ root: WORSE, bridge: 30 }));
    expect([own.entity.rootVector().root, own.entity.role(0)]).toEqual([OWN, 'designated']);
  });
  it('says through this bridge how old its news are, a hop older', () => {
    const own = bridge(2)
      .to(1)
      .hear(0, rst({ root: BETTER, messageAge: 3 }));
    expect(last(own.from(1)).times).toMatchObject({ messageAge: 4, maxAge: 20 });
  });
});

describe('a worse bridge', () => {
  it('is answered with better information, and its agreement opens the port (PIM NOT_DESIGNATED)', () => {
    const own = bridge(1).to(1);
    expect(own.is(0)).toBe('designated discarding');
    expect(own.hear(0, rst({ root: OWN, cost: 20_000, bridge: WORSE }, { role: 'root', agreement: true })).is(0)).toBe(
      'designated forwarding',
    );
  });
  it('that speaks for the segment and learns is disputed: the port stops (PIM INFERIOR_DESIGNATED)', () => {
    const own = bridge(1)
      .to(1)
      .hear(0, rst({ root: OWN, cost: 20_000, bridge: WORSE }, { role: 'root', agreement: true }));
    expect(own.hear(0, rst({ root: WORSE })).is(0)).toBe('designated discarding');
  });
  it('that does not learn yet is merely not heeded', () => {
    const own = bridge(1)
      .to(1)
      .hear(0, rst({ root: OWN, cost: 20_000, bridge: WORSE }, { role: 'root', agreement: true }));
    expect(own.hear(0, rst({ root: WORSE }, { learning: false, forwarding: false })).is(0)).toBe(
      'designated forwarding',
    );
  });
});

describe('its own voice', () => {
  it('at another port makes the worse of the two a backup', () => {
    const own = bridge(2).to(1);
    own.hear(1, rst({ root: OWN, bridge: OWN, port: 0x8001 }));
    expect([own.entity.role(0), own.is(1)]).toEqual(['designated', 'backup discarding']);
  });
});

describe('a classic neighbour', () => {
  const heard = () => bridge(1).hearing(8, 0, config({ root: WORSE }));
  it('is spoken to in its own way, once the migrate time has passed (PPM SELECTING_STP)', () => {
    const own = bridge(1)
      .to(1)
      .hear(0, config({ root: WORSE }));
    expect(
      own
        .to(2.9)
        .from(0)
        .every((bpdu) => bpdu.kind === 'rst'),
    ).toBe(true);
    expect(
      heard()
        .to(12)
        .from(0, 9)
        .every((bpdu) => bpdu.kind === 'config'),
    ).toBe(true);
  });
  it('makes the port wait a forward delay to learn and another to forward', () => {
    const own = bridge(1).hearing(60, 0, config({ root: BETTER }));
    expect(own.is(0)).toBe('root forwarding');
    const told = new EntityBench(rstpEntity, 1).hearing(16, 0, config({ root: BETTER }));
    expect(told.entity.role(0)).toBe('root');
  });
  it('that speaks RST again is answered so after the migrate time (PPM CHECKING_RSTP)', () => {
    const own = heard()
      .to(12)
      .hearing(20, 0, rst({ root: WORSE }, { role: 'root', agreement: true }));
    expect(
      own
        .to(24)
        .from(0, 20)
        .every((bpdu) => bpdu.kind === 'rst'),
    ).toBe(true);
  });
  it('that notifies of a change is acknowledged in the next configuration BPDU (TCM NOTIFIED_TCN)', () => {
    const own = heard().to(60).hear(0, { kind: 'tcn' }).to(62.5);
    expect(own.from(0, 60)).toContainEqual(expect.objectContaining({ kind: 'config', tcAck: true, tc: true }));
  });
});

describe('a topology change', () => {
  /** Root port 0, a forwarding designated port 1, an edge port 2; all quiet. */
  const settled = () =>
    bridge(3, [2])
      .to(1)
      .hear(0, proposal({ root: BETTER }))
      .hear(1, rst({ root: BETTER, cost: 40_000, bridge: WORSE }, { role: 'root', agreement: true }))
      .hearing(15, 0, rst({ root: BETTER }));
  it('is told by a port that comes to forward, for a hello and a second (newTcWhile)', () => {
    const own = bridge(1)
      .to(1)
      .hear(0, proposal({ root: BETTER }));
    const tc = own
      .hearing(12, 0, rst({ root: BETTER }))
      .sent.filter(({ bpdu }) => bpdu.kind === 'rst' && bpdu.tc)
      .map(({ t }) => t);
    expect(Math.max(...tc)).toBeLessThanOrEqual(4);
    expect(Math.max(...tc)).toBeGreaterThanOrEqual(2);
  });
  it('that is heard is passed on, and flushes every other port that is no edge port (TCM PROPAGATING)', () => {
    const own = settled();
    own.flushed.length = 0;
    own.hear(0, rst({ root: BETTER }, { tc: true }));
    expect(new Set(own.flushed)).toEqual(new Set([1]));
    expect(last(own.from(1)).tc).toBe(true);
  });
  it('is no business of an edge port', () => {
    const own = bridge(2, [1])
      .to(1)
      .hear(0, proposal({ root: BETTER }))
      .hearing(10, 0, rst({ root: BETTER }));
    own.flushed.length = 0;
    own.entity.enable(1, false);
    own.entity.enable(1, true);
    expect(
      own
        .to(11)
        .from(0, 10)
        .every((bpdu) => bpdu.kind === 'rst' && !bpdu.tc),
    ).toBe(true);
  });
  it('an edge port that hears a bridge is one no longer (PRX RECEIVE)', () => {
    const own = bridge(1, [0]).to(1);
    expect(own.is(0)).toBe('designated forwarding');
    own.hear(0, proposal({ root: BETTER })).to(1.2);
    expect(own.entity.role(0)).toBe('root');
    expect(own.sent.some(({ bpdu }) => bpdu.kind === 'rst' && bpdu.tc)).toBe(true);
  });
});

describe('settings', () => {
  it('a dearer port gives way to the other (13.27, pathCost)', () => {
    const own = bridge(2)
      .to(1)
      .hear(0, rst({ root: BETTER }))
      .hear(1, rst({ root: BETTER, bridge: 30 }));
    expect(own.entity.rootPort()).toBe(0);
    own.entity.setPathCost(0, { external: 50_000, internal: 50_000 });
    expect([own.entity.rootPort(), own.entity.rootVector().externalCost]).toEqual([1, 20_000]);
  });
  it('a better identifier makes it the root (13.26)', () => {
    const own = bridge(1)
      .to(1)
      .hear(0, rst({ root: BETTER }));
    own.entity.setBridge(1);
    expect([own.entity.rootVector().root, own.entity.role(0)]).toEqual([1, 'designated']);
  });
  it('a better port identifier is sent at once', () => {
    const own = bridge(1).to(5);
    own.entity.setPortId(0, 0x4001);
    expect(last(own.to(5.01).from(0, 5)).vector.port).toBe(0x4001);
  });
  it('no more than the hold count goes out at once, then one a second (13.30)', () => {
    const own = bridge(1, [], { txHold: 3 }).to(10);
    for (let cost = 1; cost <= 20; cost += 1) own.hear(0, rst({ root: BETTER, cost, bridge: 30 }, { proposal: true }));
    expect(own.from(0, 10).length).toBeLessThanOrEqual(3);
    expect(own.to(12.9).from(0, 10).length).toBeLessThanOrEqual(6);
  });
});
