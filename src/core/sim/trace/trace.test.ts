/** Runs as traces: any instant, the order of events in sentences, what it cost, frames field by field. */
import type { Run } from '../run';
import fc from 'fast-check';
import { fernhollow } from '../../demo/demos';
import type { HostId, PortId, SwitchId } from '../../model/ids';
import type { Action } from '../../model/scenario';
import type { Design, Dialect } from '../../model/document';
import { SECOND } from '../../modes/entity';
import { meshDesign, networkOf } from '../../testing/networks';
import { compileNetwork } from '../../topology/network';
import { bridgeKeys } from '../engine/bridgeKeys';
import { costOf } from '../report/cost';
import { Player, traceOf } from './trace';
import { frameRows } from '../report/frameRows';
import { followFrame } from '../traffic/passage';
import { nearestLink, readScenario } from '../scenario/scenario';
import { simulate } from '../simulate';
import { tries } from '../../testing/runs';

function played(
  design: Design,
  actions: readonly object[],
  until = 60,
): { readonly run: Run; readonly player: Player } {
  const scenario = readScenario({ actions, until }, design);
  if (!scenario.ok) throw new Error(JSON.stringify(scenario.error));
  const run = simulate(design, scenario.value);
  if (!run.ok) throw new Error(run.error);
  return { run: run.value, player: new Player(structuredClone(traceOf(run.value, scenario.value.actions, until))) };
}
const speaking = (dialect: Dialect): Design => ({
  ...fernhollow(),
  switches: fernhollow().switches.map((sw) => ({ ...sw, dialect })),
});
const CUT = [{ at: 1, do: 'link-down', link: 'l13' }];

describe('a player', () => {
  it('shows at every instant what the recording has, and ends where the run ended', () => {
    fc.assert(
      fc.property(
        meshDesign,
        fc.nat(),
        fc.array(fc.integer({ min: 0, max: 40 * SECOND }), { maxLength: 8 }),
        (design, pick, instants) => {
          const links = design.links.filter((link) => link.up);
          if (links.length === 0) return;
          const { run, player } = played(
            design,
            [{ at: 1, do: 'link-down', link: links[pick % links.length]!.id }],
            40,
          );
          for (const t of instants) {
            const picture = run.recording.pictureAt(t);
            const instant = player.at(t);
            for (let tree = 0; tree < run.recording.trees; tree += 1) {
              for (let port = 0; port < run.recording.ports; port += 1)
                expect([instant.state(tree, port), instant.role(tree, port)]).toEqual([
                  run.recording.stateIn(picture, tree, port),
                  run.recording.roleIn(picture, tree, port),
                ]);
            }
            expect(instant.causes).toEqual(run.reach.causesAt(t));
          }
        },
      ),
      { numRuns: tries(20) },
    );
  });
  it('ends where its run was stopped', () => {
    const design = speaking('rstp');
    const scenario = readScenario({ actions: [...CUT, { at: 40, do: 'link-up', link: 'l13' }], until: 60 }, design);
    const run = scenario.ok ? simulate(design, scenario.value, { progress: (share) => share < 0.5 }) : scenario;
    if (!run.ok || !scenario.ok) throw new Error('not run');
    const { trace } = new Player(traceOf(run.value, scenario.value.actions, 60));
    expect(trace.stopped).toBe(true);
    expect(trace.until).toBeGreaterThanOrEqual(30 * SECOND);
    expect(trace.until).toBeLessThan(35 * SECOND); // it is asked every few seconds
  });
  it('goes from change to change, forth and back', () => {
    const { player } = played(speaking('rstp'), CUT);
    const there: number[] = [];
    for (let t = player.next(-1); t !== null; t = player.next(t)) there.push(t);
    const back: number[] = [];
    for (let t = player.previous(Infinity); t !== null; t = player.previous(t)) back.push(t);
    expect(back.reverse()).toEqual(there);
    expect(there).toEqual([...player.moments]);
    expect(there[0]).toBe(SECOND);
  });
  it('has a lane for each port that changes, without a gap or an overlap', () => {
    const { player, run } = played(speaking('stp'), CUT);
    const lanes = player.lanes();
    expect(lanes).toHaveLength(new Set(run.trace.map((entry) => `${entry.tree} ${entry.switch} ${entry.port}`)).size);
    for (const { stretches } of lanes) {
      expect([stretches[0]!.from, stretches.at(-1)!.to]).toEqual([0, 60 * SECOND]);
      stretches.forEach(({ from }, i) => i > 0 && expect(from).toBe(stretches[i - 1]!.to));
    }
  });
  it('follows a frame at any instant: the other way once the port has taken over', () => {
    const { player } = played(fernhollow(), CUT);
    const way = (t: number) => followFrame(player.at(t), 'camera-recorder' as HostId, 'image-store' as HostId);
    const hops = (t: number) => {
      const found = way(t);
      return found.arrives && found.hops.map((hop) => hop.switch);
    };
    expect(hops(0)).toEqual(['dome-north', 'ridge-a', 'lodge', 'ridge-b']);
    expect(hops(30 * SECOND)).not.toEqual(hops(0));
    expect(way(30 * SECOND).arrives).toBe(true);
  });
});

describe('the order of events', () => {
  it('tells who lost what, who took over, and when nothing moves any more', () => {
    const { player } = played(speaking('rstp'), CUT);
    const told = player.trace.order.map(({ t, text }) => `${t} ${text}`);
    expect(told[0]).toBe('1000000 The link ridge-a port 7 to lodge port 1 is cut.');
    expect(told).toContain(
      '1000000 ridge-a: port 6, alternate until now, is root port and forwards at once; loses its root port 7.',
    );
    expect(
      told.some((line) =>
        /^1001005 dome-north: port 2, alternate until now, is root port and forwards at once; .* \(heard at port 1\)\.$/.test(
          line,
        ),
      ),
    ).toBe(true);
    expect(told.at(-1)).toMatch(/Nothing moves any more\.$/);
    const { order } = player.trace;
    expect(order.every(({ t }, i) => i === 0 || t >= order[i - 1]!.t)).toBe(true);
  });
  it('says once what trees do alike, and names trees that do otherwise', () => {
    const { player } = played(fernhollow(), CUT);
    expect(player.trace.order.filter(({ text }) => text.startsWith('dome-north'))[0]!.text).toMatch(
      /^dome-north: port 2, alternate until now, is root port/,
    );
    const one = played(fernhollow(), [
      { at: 1, do: 'port-cost', switch: 'dome-north', port: '1', cost: 90_000, tree: 'vlan:15' },
    ]);
    expect(one.player.trace.order[1]!.text).toMatch(/^dome-north in VLAN 15: /);
  });
  it('tells of a listening port in classic words, and of frames that circle', () => {
    expect(played(speaking('stp'), CUT).player.trace.order.map((line) => line.text)).toContain(
      'ridge-a: port 6 learns (a timer ran out).',
    );
    const loop = networkOf(
      { a: { dialect: 'off' }, b: { dialect: 'off' } },
      ['a 1 = b 1', 'a 2 = b 2'],
      { 'a 9': {} },
      { hosts: [{ id: 'x', mac: '02:00:00:00:01:01', attach: [{ switch: 'a', port: '9' }] }] },
    );
    expect(
      played(loop, [{ at: 3, do: 'link-down', link: 'l1' }], 5).player.trace.order.map((line) => line.kind),
    ).toEqual(['storm', 'action', 'storm']);
  });
});

describe('what it cost', () => {
  const outage = (from: string, start: number, end: number | null, cause: 'no path' | 'storm' = 'no path') => ({
    from: from as HostId,
    to: 'z' as HostId,
    vlan: 1,
    start,
    end,
    cause,
  });
  it('is the longest and the sum of each pair, the worst first; what lasts counts to the end', () => {
    const cost = costOf([outage('a', 1, 2), outage('a', 4, 4.5, 'storm'), outage('b', 5, null)], 10);
    expect(cost).toMatchObject({ longest: 5, total: 6.5 });
    expect(cost.pairs).toMatchObject([
      { from: 'b', cuts: 1, lasting: true },
      { from: 'a', cuts: 2, longest: 1, total: 1.5, first: 1, lasting: false, by: { 'no path': 1, storm: 0.5 } },
    ]);
    expect(costOf([], 10)).toEqual({ pairs: [], longest: 0, total: 0 });
  });
});

describe('frames', () => {
  it('are told field by field, beside what the port at the other end holds', () => {
    const design = networkOf({ a: { priority: 0 }, b: {} }, ['a 1 = b 1']);
    const { run } = played(
      design,
      [
        { at: 1, do: 'bridge-priority', switch: 'b', priority: 0 },
        { at: 3, do: 'bridge-priority', switch: 'a', priority: 61_440 },
      ],
      6,
    );
    const network = compileNetwork(run.design);
    const { rows, left } = frameRows(
      network,
      run.final.trees.map((tree) => tree.id),
      bridgeKeys(network),
      run,
      (port) => port === 0,
      2,
    );
    const all = frameRows(
      network,
      run.final.trees.map((tree) => tree.id),
      bridgeKeys(network),
      run,
      (port) => port === 0,
      100,
    );
    expect([rows.length, left, all.left]).toEqual([2, all.rows.length - 2, 0]);
    expect(rows[0]).toMatchObject({ kind: 'RST', from: { switch: 'a', port: '1' }, to: { switch: 'b', port: '1' } });
    expect(rows[0]!.fields.slice(0, 4).map(({ name, than }) => `${name} ${than}`)).toEqual([
      'Root bridge ID same',
      'Root path cost same',
      'Bridge ID same',
      'Port ID same',
    ]);
    const worse = all.rows.find((row) => row.fields[0]!.value.startsWith('61440'));
    expect(worse?.fields[0]).toMatchObject({ than: 'worse', held: '0.02:00:00:00:00:01' });
  });
});

describe('a scenario', () => {
  const ring = networkOf({ a: { priority: 0 }, b: {}, c: {} }, ['a 1 = b 1', 'b 2 = c 2', 'a 2 = c 1'], { 'b 9': {} });
  const newcomer = { id: 'n', mac: '02:00:00:00:00:77', priority: 0, ports: [{ id: '1', number: 1 }] };
  it('can bring a switch along: it is dead until its time, and takes part then', () => {
    const { run, player } = played(
      ring,
      [
        {
          at: 2,
          do: 'add-switch',
          switch: { ...newcomer, mac: '02:00:00:00:00:00' },
          links: [{ id: 'new', a: { switch: 'b', port: '9' }, b: { switch: 'n', port: '1' } }],
        },
      ],
      20,
    );
    const p = player.network.portIndexOf('b' as SwitchId, '9' as PortId);
    expect([player.at(1.9 * SECOND).live(p), player.at(2 * SECOND).live(p)]).toEqual([false, true]);
    expect(run.final.trees[0]!.switches['a' as SwitchId]!.root).toBe('n');
    expect(run.trace.every((entry) => entry.t >= 2)).toBe(true);
  });
  it('that brings what cannot be says so by its path', () => {
    const read = (actions: object[]) => {
      const found = readScenario({ actions }, ring);
      return found.ok ? null : found.error[0]!.path;
    };
    expect(read([{ at: 1, do: 'add-switch', switch: { ...newcomer, id: 'a' } }])).toBe('actions[0].switch.id');
    expect(
      read([
        {
          at: 1,
          do: 'add-switch',
          switch: newcomer,
          links: [{ id: 'new', a: { switch: 'b', port: '1' }, b: { switch: 'n', port: '1' } }],
        },
      ]),
    ).toBe('actions[0]');
    expect(
      read([
        { at: 1, do: 'switch-down', switch: 'n' },
        { at: 1, do: 'add-switch', switch: newcomer },
      ]),
    ).toBe('actions[0].switch');
    expect(
      read([
        { at: 1, do: 'add-switch', switch: newcomer },
        { at: 2, do: 'switch-down', switch: 'n' },
      ]),
    ).toBe(null);
  });
  it('whose link is gone is offered the nearest: between the same switches first', () => {
    const pair = networkOf({ a: {}, b: {}, c: {} }, ['a 1 = c 1', 'a 2 = b 2', 'b 3 = c 3']);
    const end = (sw: string, port: string) => ({ switch: sw as SwitchId, port: port as PortId });
    expect(nearestLink(pair, { a: end('b', '1'), b: end('a', '9') })?.id).toBe('l1');
    expect(nearestLink(pair, { a: end('b', '3'), b: end('x', '1') })?.id).toBe('l2');
    expect(nearestLink(pair, { a: end('y', '3'), b: end('x', '1') })).toBeNull();
    expect(nearestLink(pair, undefined)).toBeNull();
  });
  it('of the demo runs as it is kept', () => {
    const { scenarios, ...design } = fernhollow();
    expect(scenarios.length).toBeGreaterThan(3);
    for (const { actions, until } of scenarios)
      expect(readScenario({ actions: actions as Action[], until }, { ...design, scenarios }).ok).toBe(true);
  });
});
