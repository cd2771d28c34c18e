/** The LACP machines of one system, with a neighbour played to it (802.1AX-2020 6.4). */
import { SECOND, type Micros } from '../entity';
import { LacpEntity } from './entity';
import type { LacpSettings, Lacpdu, LacpState, Participant } from './state';

const settings = (more: Partial<LacpSettings> = {}): LacpSettings => ({
  systemPriority: 32_768,
  mac: '02:00:00:00:00:01',
  key: 1,
  active: true,
  fast: false,
  minLinks: 1,
  maxActive: 8,
  ports: [1, 2].map((number) => ({ number, priority: 32_768, key: 1, speed: 1000 })),
  ...more,
});

/** A system under test: what it sends, and a clock. */
function bench(more: Partial<LacpSettings> = {}) {
  let now: Micros = 0;
  const sent: { readonly t: number; readonly port: number; readonly pdu: Lacpdu }[] = [];
  const entity = new LacpEntity(settings(more), {
    now: () => now,
    transmit: (port, pdu) => sent.push({ t: now / SECOND, port, pdu }),
    changed: () => undefined,
  });
  return {
    entity,
    sent,
    /** Lets time pass, waking the entity when it wants to be. */
    to(t: number) {
      while (entity.due <= t * SECOND) {
        now = entity.due;
        entity.wake();
      }
      now = t * SECOND;
    },
    /** A neighbour's LACPDU that has seen what this port says. */
    hear(
      port: number,
      state: Partial<LacpState> = {},
      more2: Partial<Participant> = {},
      seen: Participant = entity.view(port).actor,
    ) {
      const actor: Participant = {
        systemPriority: 32_768,
        system: '02:00:00:00:00:02',
        key: 9,
        portPriority: 32_768,
        port: port + 1,
        state: {
          activity: true,
          timeout: false,
          aggregation: true,
          synchronization: false,
          collecting: false,
          distributing: false,
          defaulted: false,
          expired: false,
          ...state,
        },
        ...more2,
      };
      entity.receive(port, { actor, partner: seen });
    },
  };
}
const inStep = { synchronization: true, collecting: true, distributing: true };

describe('receive machine', () => {
  it('keeps nothing of a partner that a moved cable has brought to another port (6.4.8 port_moved)', () => {
    const own = bench();
    own.entity.enable(0, true);
    own.hear(0, inStep);
    expect(own.entity.view(0).partner).toMatchObject({ system: '02:00:00:00:00:02', port: 1 });
    own.entity.enable(0, false);
    own.entity.heardElsewhere({ ...own.entity.view(0).partner!, port: 7 });
    expect(own.entity.view(0).partner).toMatchObject({ port: 1 });
    own.entity.heardElsewhere(own.entity.view(0).partner!);
    expect(own.entity.view(0)).toMatchObject({ rx: 'PORT_DISABLED', partner: null });
    expect(own.entity.view(0).actor.state.defaulted).toBe(true);
    // A port with signal takes no notice.
    own.entity.enable(1, true);
    own.hear(1, inStep);
    own.entity.heardElsewhere(own.entity.view(1).partner!);
    expect(own.entity.view(1).rx).toBe('CURRENT');
  });
  it('expires at first, is defaulted after three seconds, and then a port of its own', () => {
    const { entity, to } = bench();
    entity.enable(0, true);
    expect(entity.view(0)).toMatchObject({ rx: 'EXPIRED', state: 'waiting', partner: null });
    to(2.9);
    expect(entity.view(0).rx).toBe('EXPIRED');
    to(3.1);
    expect(entity.view(0)).toMatchObject({ rx: 'DEFAULTED', state: 'waiting' });
    expect(entity.view(0).actor.state).toMatchObject({ defaulted: true, expired: false });
    to(5.1);
    expect([entity.view(0).state, entity.use(0)]).toEqual(['individual', 'own']);
  });
  it.each([
    [true, 3],
    [false, 90],
  ])('keeps what it heard for its own timeout (fast: %s), then three seconds more', (fast, seconds) => {
    const { entity, to, hear } = bench({ fast });
    entity.enable(0, true);
    hear(0);
    to(seconds - 0.1);
    expect(entity.view(0).rx).toBe('CURRENT');
    to(seconds + 0.1);
    expect(entity.view(0)).toMatchObject({ rx: 'EXPIRED', actor: { state: { expired: true } } });
    to(seconds + 3.1);
    expect(entity.view(0)).toMatchObject({ rx: 'DEFAULTED', partner: null });
  });
  it('does not take a partner for in step that means another port', () => {
    const { entity, to, hear } = bench();
    entity.enable(0, true);
    hear(0, inStep, {}, { ...entity.view(0).actor, port: 77 });
    to(3);
    expect(entity.view(0)).toMatchObject({
      mux: 'ATTACHED',
      state: 'waiting',
      partner: { state: { synchronization: false } },
    });
  });
});

describe('periodic transmission machine', () => {
  it('speaks every second while the partner wants it so, every thirty seconds else', () => {
    const { entity, sent, to, hear } = bench();
    entity.enable(0, true);
    hear(0, { ...inStep, timeout: true });
    to(10);
    const busy = sent.filter(({ t }) => t > 4 && t <= 10).length;
    hear(0, inStep);
    const before = sent.length;
    to(75);
    expect([busy, sent.length - before]).toEqual([6, 2]);
  });
  it('is silent where neither end speaks first', () => {
    const { entity, sent, to, hear } = bench({ active: false });
    entity.enable(0, true);
    to(20);
    expect(sent).toEqual([]);
    hear(0);
    expect(sent).toHaveLength(1);
    hear(0, { activity: false });
    to(200);
    expect(entity.view(0)).toMatchObject({ state: 'individual', rx: 'DEFAULTED' });
  });
  it('never sends more than three in a second', () => {
    const { entity, sent, hear, to } = bench();
    entity.enable(0, true);
    for (let i = 0; i < 10; i += 1) hear(0, i % 2 ? inStep : {}, {}, { ...entity.view(0).actor, key: 100 + i });
    expect(sent.length).toBeLessThanOrEqual(3);
    to(5);
    for (const { t } of sent)
      expect(sent.filter((each) => each.t >= t && each.t < t + 1).length).toBeLessThanOrEqual(3);
  });
});

describe('selection and mux', () => {
  it('attaches after the aggregate wait of two seconds, and forwards once the partner is in step', () => {
    const { entity, to, hear } = bench();
    entity.enable(0, true);
    hear(0);
    to(1.9);
    expect(entity.view(0).mux).toBe('WAITING');
    to(2.1);
    expect([entity.view(0).mux, entity.use(0)]).toEqual(['ATTACHED', 'out']);
    hear(0, { synchronization: true });
    expect([entity.view(0).mux, entity.use(0), entity.up]).toEqual(['COLLECTING_DISTRIBUTING', 'bundle', true]);
    hear(0, { synchronization: false });
    expect([entity.view(0).mux, entity.use(0)]).toEqual(['ATTACHED', 'out']);
  });
  it('waits for members that come together', () => {
    const { entity, to, hear } = bench();
    entity.enable(0, true);
    hear(0);
    to(1);
    entity.enable(1, true);
    hear(1);
    to(2.5);
    expect([0, 1].map((port) => entity.view(port).mux)).toEqual(['WAITING', 'WAITING']);
    to(3.1);
    expect([0, 1].map((port) => entity.view(port).mux)).toEqual(['ATTACHED', 'ATTACHED']);
  });
  it('keeps out a member with another partner, and leaves the bundle alone', () => {
    const { entity, to, hear } = bench({
      ports: [1, 2, 3].map((number) => ({ number, priority: 32_768, key: 1, speed: 1000 })),
    });
    for (const port of [0, 1]) {
      entity.enable(port, true);
      hear(port);
    }
    to(2.5);
    for (const port of [0, 1]) hear(port, inStep);
    entity.enable(2, true);
    hear(2, {}, { system: '02:00:00:00:00:03' });
    to(6);
    expect([0, 1, 2].map((port) => entity.view(port).state)).toEqual(['active', 'active', 'standby']);
    expect(entity.view(2)).toMatchObject({ refusal: 'partner', actor: { state: { synchronization: false } } });
  });
  it('lets a member that stands by in where another is lost', () => {
    const { entity, to, hear } = bench({ maxActive: 1 });
    for (const port of [0, 1]) {
      entity.enable(port, true);
      hear(port);
    }
    to(2.5);
    hear(0, inStep);
    expect([0, 1].map((port) => entity.view(port).state)).toEqual(['active', 'standby']);
    entity.enable(0, false);
    hear(1, inStep);
    expect([0, 1].map((port) => entity.view(port).state)).toEqual(['down', 'active']);
  });
  it('lets no frame through with fewer members than the minimum', () => {
    const { entity, to, hear } = bench({ minLinks: 2 });
    entity.enable(0, true);
    hear(0, inStep);
    to(4);
    expect([entity.view(0).state, entity.use(0), entity.up]).toEqual(['waiting', 'out', false]);
    entity.enable(1, true);
    hear(1, inStep);
    to(8);
    expect([entity.use(0), entity.use(1), entity.up]).toEqual(['bundle', 'bundle', true]);
  });
});
