/** A classic bridge by itself, with neighbours played to it (IEEE 802.1D-1998 8.6 to 8.8). */
import { EntityBench, OWN, config, rst } from '../../testing/entity';
import type { ConfigBpdu } from '../bpdu';
import { stpEntity } from './entity';

const BETTER = 5;
const WORSE = 900;
const bridge = (ports: number, edges: readonly number[] = [], times = {}) =>
  new EntityBench(stpEntity, ports, edges, times);
const configs = (own: EntityBench, port: number, since = 0): ConfigBpdu[] =>
  own.from(port, since).flatMap((bpdu) => (bpdu.kind === 'config' ? [bpdu] : []));

describe('alone', () => {
  it('is the root, listens for a forward delay, learns for another, then forwards (8.7.5)', () => {
    const own = bridge(1);
    const states = [0, 14.9, 15, 29.9, 30].map((t) => own.to(t).is(0));
    expect(states).toEqual([
      'designated listening',
      'designated listening',
      'designated learning',
      'designated learning',
      'designated forwarding',
    ]);
  });
  it('speaks each hello time', () => expect(configs(bridge(1).to(40), 0, 20.5)).toHaveLength(10));
  it('forwards at once on an edge port, and listens there once it hears a bridge', () => {
    const own = bridge(1, [0]).to(1);
    expect(own.is(0)).toBe('designated forwarding');
    own.hear(0, config({ root: BETTER }));
    own.entity.enable(0, false);
    expect(own.is(0)).toBe('disabled disabled');
  });
});

describe('a better bridge', () => {
  it('becomes the root, and its word is passed on older by the increment (8.6.1, 8.10.2)', () => {
    const own = bridge(2)
      .to(1)
      .hear(0, config({ root: BETTER, cost: 4, bridge: 30, messageAge: 2 }))
      .to(3);
    expect([own.entity.rootVector().root, own.entity.rootVector().externalCost, own.entity.rootPort()]).toEqual([
      BETTER,
      20_004,
      0,
    ]);
    expect(configs(own, 1).at(-1)).toMatchObject({
      vector: { root: BETTER, externalCost: 20_004, bridge: OWN, port: 0x8002 },
      times: { messageAge: 2 + 1 / 256, maxAge: 20 },
    });
    expect(configs(own, 0, 1.01)).toEqual([]);
  });
  it('is not passed on once its word is as old as max age', () => {
    const passedOn = (messageAge: number, ageIncrement: number) => {
      const own = bridge(2, [], { ageIncrement }).to(1);
      own.hear(0, config({ root: BETTER, messageAge })).to(1.5);
      return configs(own, 1, 1).flatMap(({ vector, times }) =>
        vector.root === BETTER ? [Math.floor(times.messageAge)] : [],
      );
    };
    expect(passedOn(18, 256)).toEqual([19]);
    expect(passedOn(19, 256)).toEqual([]);
    expect(passedOn(19, 1)).toEqual([19]);
  });
  it('at two ports is reached by the better, the other blocks', () => {
    const own = bridge(2)
      .to(1)
      .hear(0, config({ root: BETTER, bridge: 30 }))
      .hear(1, config({ root: BETTER, bridge: 20 }));
    expect([own.entity.role(0), own.is(1)]).toEqual(['alternate', 'root listening']);
    expect(own.is(0)).toBe('alternate blocking');
  });
  it('that falls silent is forgotten when its word is as old as max age (8.7.4)', () => {
    const own = bridge(1)
      .to(1)
      .hear(0, config({ root: BETTER, messageAge: 3 }));
    expect(own.to(17.9).entity.rootVector().root).toBe(BETTER);
    expect(own.to(18).entity.rootVector().root).toBe(OWN);
  });
  it('gives its times to everyone (8.6.3)', () => {
    const own = bridge(1).to(1);
    own.hear(0, {
      ...config({ root: BETTER }),
      times: { messageAge: 0, maxAge: 10, forwardDelay: 4, hello: 1, remainingHops: 0 },
    });
    own.entity.enable(0, false);
    own.entity.enable(0, true);
    expect(own.to(10).entity.rootVector().root).toBe(OWN);
  });
  it('whose port loses its light is forgotten at once (8.8.3)', () => {
    const own = bridge(2)
      .to(1)
      .hear(0, config({ root: BETTER }))
      .hear(1, config({ root: BETTER, cost: 9, bridge: 30 }));
    expect(own.is(1)).toBe('alternate blocking');
    own.entity.enable(0, false);
    expect([own.is(1), own.entity.rootVector().externalCost]).toEqual(['root listening', 20_009]);
  });
});

describe('a worse bridge', () => {
  it('is answered at once (8.6.5)', () => {
    const own = bridge(1).to(5.5);
    own.hear(0, config({ root: WORSE }));
    expect(configs(own, 0, 5.5)).toHaveLength(1);
  });
  it('but no more often than once in the hold time: the rest waits (8.7.8)', () => {
    const own = bridge(1).to(5.5);
    for (let i = 0; i < 5; i += 1) own.hear(0, config({ root: WORSE }));
    expect(configs(own, 0, 5.5)).toHaveLength(1);
    expect(configs(own.to(6.5), 0, 5.5)).toHaveLength(2);
  });
  it('and BPDUs of later versions are not known to it (9.3.4)', () =>
    expect(
      bridge(1)
        .to(1)
        .hear(0, rst({ root: BETTER }))
        .entity.rootVector().root,
    ).toBe(OWN));
});

describe('its own voice at another port', () => {
  it('makes that a backup', () => {
    const own = bridge(2)
      .to(1)
      .hear(1, config({ root: OWN, bridge: OWN, port: 0x8001 }));
    expect([own.entity.role(0), own.is(1)]).toEqual(['designated', 'backup blocking']);
  });
});

describe('a topology change', () => {
  /** Port 0 toward the root, port 1 designated; both forward, all quiet. */
  const settled = () => bridge(2).hearing(80, 0, config({ root: BETTER }, { tcAck: true }));
  it('is told toward the root until that is acknowledged (8.7.6, 8.6.15)', () => {
    const own = settled();
    own.hear(1, { kind: 'tcn' });
    expect(own.from(0, 80)).toEqual([{ kind: 'tcn' }]);
    expect(own.to(82.5).from(0, 80)).toEqual([{ kind: 'tcn' }, { kind: 'tcn' }]);
    own.hear(0, config({ root: BETTER }, { tcAck: true }));
    expect(own.to(88).from(0, 82.6)).toEqual([]);
  });
  it('is acknowledged to whoever told it (8.6.16)', () => {
    const own = settled();
    own.hear(1, { kind: 'tcn' }).to(81.5);
    expect(configs(own, 1, 80)).toContainEqual(expect.objectContaining({ tcAck: true }));
  });
  it('has addresses age fast while the root says so (8.5.3.8)', () => {
    const own = settled();
    expect(own.fast).toBe(false);
    own.hear(0, config({ root: BETTER }, { tc: true }));
    expect(own.fast).toBe(true);
    expect(configs(own.to(81.5), 1, 80).at(-1)).toMatchObject({ tc: true });
    own.hear(0, config({ root: BETTER }));
    expect(own.fast).toBe(false);
  });
  it('at the root lasts for max age and a forward delay (8.7.7)', () => {
    const own = bridge(1).to(100);
    expect(own.fast).toBe(false);
    own.hear(0, { kind: 'tcn' });
    expect([own.to(134.9).fast, own.to(135).fast]).toEqual([true, false]);
  });
});

describe('settings', () => {
  it('a dearer port gives way to the other (8.8.6)', () => {
    const own = bridge(2)
      .to(1)
      .hear(0, config({ root: BETTER }))
      .hear(1, config({ root: BETTER, bridge: 30 }));
    own.entity.setPathCost(0, { external: 90_000, internal: 90_000 });
    expect([own.entity.rootPort(), own.entity.rootVector().externalCost, own.is(0)]).toEqual([
      1,
      20_000,
      'alternate blocking',
    ]);
  });
  it('a better identifier makes it the root, and it begins to speak (8.8.4)', () => {
    const own = bridge(1)
      .to(1)
      .hear(0, config({ root: BETTER }))
      .to(2.5);
    own.entity.setBridge(1);
    expect(own.entity.rootVector().root).toBe(1);
    expect(configs(own, 0, 2.5)).toHaveLength(1);
  });
  it('a better port identifier is taken over into what it says (8.8.5)', () => {
    const own = bridge(1).to(5);
    own.entity.setPortId(0, 0x4001);
    expect(configs(own.to(8), 0, 5.5).at(-1)?.vector.port).toBe(0x4001);
  });
});
