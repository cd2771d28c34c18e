/** The simulator's worker, without the worker. */
import { fernhollow } from '../core/demo/demos';
import type { LinkId, PortId, SwitchId } from '../core/model/ids';
import type { Scenario } from '../core/model/scenario';
import { SECOND } from '../core/modes/entity';
import { benchedScenario, longScenario } from '../core/testing/scenarios';
import { decodePcapng } from '../core/wire/pcapng';
import { createRunning } from './running';

const design = fernhollow();
const cut: Scenario = benchedScenario(design, [{ at: 1, do: 'link-down', link: 'l13' }], 20);
const untold = () => undefined;
const running = () => createRunning((answer) => answer);

it('answers nothing, in words, before anything has run', () => {
  const idle = running();
  expect(idle.frames(null, null, 5)).toEqual({ ok: false, error: 'Nothing has run yet.' });
  expect(idle.capture(null)).toEqual({ ok: false, error: 'Nothing has run yet.' });
  expect(idle.why(design.links[0]!.id as never, 'ridge-a' as SwitchId, '6' as PortId, 0)).toBeNull();
});

describe('a run', () => {
  it('is asked why, for frames and for a capture, of a link, of a port, of all', async () => {
    const own = running();
    const trace = await own.run(design, cut, untold);
    if (!trace.ok) throw new Error(trace.error);
    const tree = trace.value.trees[1]!;
    expect(own.why(tree, 'ridge-a' as SwitchId, '6' as PortId, 0.5 * SECOND)).toBeNull();
    expect(own.why(tree, 'ridge-a' as SwitchId, '6' as PortId, SECOND)).toEqual({
      t: SECOND,
      text: 'signal came or went',
    });
    const count = (scope: Parameters<typeof own.frames>[0], trees: Parameters<typeof own.frames>[1] = null) => {
      const found = own.frames(scope, trees, 10);
      return found.ok ? found.value.rows.length + found.value.left : -1;
    };
    const all = count(null);
    const link = count({ kind: 'link', link: 'l1' as LinkId });
    expect(count(null, [tree])).toBeLessThan(all);
    expect(link).toBeLessThan(all);
    expect(count({ kind: 'port', switch: 'ridge-a' as SwitchId, port: '1' as PortId })).toBe(link); // a link has two ends, and both hear all of it
    const saved = (scope: Parameters<typeof own.capture>[0]) => {
      const bytes = own.capture(scope);
      const capture = bytes.ok ? decodePcapng(bytes.value) : bytes;
      return capture.ok ? capture.value : null;
    };
    expect(saved({ kind: 'link', link: 'l1' as LinkId })!.interfaces).toEqual(['ridge-a 1 = ridge-b 1']);
    expect(saved(null)!.frames.length).toBeGreaterThanOrEqual(all);
  });
  it('that is stopped keeps what it has', async () => {
    const own = running();
    const told: number[] = [];
    const trace = await own.run(design, longScenario(design), (share) => {
      told.push(share);
      if (share > 0) own.stop();
    });
    expect(trace.ok && trace.value.stopped).toBe(true);
    expect(told.at(-1)).toBeLessThan(1);
    expect(own.frames(null, null, 1).ok).toBe(true);
  });
  it('gives way to the next: what is asked afterwards is asked of that one', async () => {
    const own = running();
    const first = own.run(design, longScenario(design), untold);
    const second = own.run(design, cut, untold);
    await Promise.all([first, second]);
    const frames = own.frames(null, null, 1_000_000);
    expect(frames.ok && Math.max(...frames.value.rows.map((row) => row.t))).toBeLessThanOrEqual(20 * SECOND);
  });
  it('says what stands against a scenario', async () => {
    const wrong = { ...cut, actions: [{ at: 1, do: 'add-switch' as const, switch: design.switches[0]!, links: [] }] };
    expect(await running().run(design, wrong, untold)).toMatchObject({
      ok: false,
      error: expect.stringContaining('ridge-a'),
    });
  });
  it('may be warmed up before, which changes nothing', async () => {
    const [cold, warm] = [running(), running()];
    await warm.warm(design);
    const [a, b] = [await cold.run(design, cut, untold), await warm.run(design, cut, untold)];
    expect(a).toEqual(b);
  });
});
