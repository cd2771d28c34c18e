/** A host that begins to send BPDUs: what it moves, and what guards make of it. */
import { networkOf } from '../testing/networks';
import { run, shutTimes } from '../testing/guards';
import type { Design } from '../model/document';
import type { SwitchId } from '../model/ids';
import type { Action } from '../model/scenario';
import { viewTree } from '../tree/settled';
import { solve } from '../tree/solve';
import { afterAction, readScenario } from './scenario/scenario';

describe('a host that sends BPDUs', () => {
  const hosts = [
    { id: 'kiosk', mac: '02:00:00:00:01:01', attach: [{ switch: 'b', port: '9' }] },
    { id: 'store', mac: '02:00:00:00:01:02', attach: [{ switch: 'a', port: '9' }] },
  ];
  const network = (kiosk: object) =>
    networkOf(
      { a: { priority: 4096 }, b: {} },
      ['a 1 = b 1'],
      { 'a 9': {}, 'b 9': { edge: true, ...kiosk } },
      { hosts },
    );
  const sends = (more: object = {}) => ({ at: 5, do: 'host-bpdus', host: 'kiosk', ...more });
  const root = (ran: ReturnType<typeof run>) => ran.final.trees[0]!.switches['a' as SwitchId]?.root;
  const lost = (ran: ReturnType<typeof run>) =>
    ran.outages.map(({ start, end, cause }) => [Math.round(start), end && Math.round(end), cause]);

  it('becomes root with the lowest priority, and goes on to reach the others', () => {
    const ran = run(network({}), [sends({ priority: 0 })], 30);
    expect(root(ran)).toBe('kiosk-bridge');
    expect(ran.trace.every(({ t }) => t >= 5)).toBe(true);
    expect(lost(ran).every(([, end]) => end === 5)).toBe(true);
    const { network: after, trees } = solve(afterAction(ran.design, sends({ dialect: 'rstp', priority: 0 }) as Action));
    expect(ran.final.trees[0]).toEqual(viewTree(after, trees[0]!));
  });

  it('moves nothing with a priority that is no better, and costs its own frames nothing but a moment', () => {
    const ran = run(network({}), [sends()], 30);
    expect(root(ran)).toBe('a');
    expect(ran.trace.filter(({ switch: sw, port }) => sw === 'a' || (sw === 'b' && port === '1'))).toEqual([]);
  });

  it('is cut off by BPDU guard whatever its priority, until the port recovers', () => {
    const shut = run(network({ bpduGuard: true }), [sends()], 30);
    expect(root(shut)).toBe('a');
    expect(shutTimes(shut, 'b', '9')).toEqual([5]);
    expect(lost(shut)).toEqual([
      [5, null, 'no path'],
      [5, null, 'no path'],
    ]);
  });

  it('speaks the mode that it is told to, once, over one cable', () => {
    const ran = run(network({}), [sends({ dialect: 'stp' })], 60);
    expect(ran.final.trees[0]!.switches['kiosk-bridge' as SwitchId]?.rootPort).toBe('1');
    const fault = (actions: object[], design: Design) => {
      const read = readScenario({ actions, until: 60 }, design);
      return read.ok ? null : read.error[0];
    };
    expect(fault([sends(), sends()], network({}))).toMatchObject({ path: 'actions[1].host' });
    expect(fault([sends({ host: 'nobody' })], network({}))).toMatchObject({ found: '"nobody"' });
    const two = networkOf(
      { a: {}, b: {} },
      ['a 1 = b 1'],
      { 'a 9': {}, 'b 9': {} },
      {
        hosts: [{ ...hosts[0], attach: [...hosts[0]!.attach, ...hosts[1]!.attach] }],
      },
    );
    expect(fault([sends()], two)?.allowed).toBe('a host with one cable');
  });
});
