/** The simulator's worker, without the worker. */
import { fernhollow } from '../core/demo/demos';
import type { LinkId, PortId, SwitchId } from '../core/model/ids';
import type { Scenario } from '../core/model/scenario';
import { SECOND } from '../core/modes/entity';
import { helperBeside } from '../core/testing/helpers';
import { networkOf } from '../core/testing/networks';
import { benchedScenario, longScenario } from '../core/testing/scenarios';
import { decodePcapng } from '../core/wire/pcapng';
import type { Design } from '../core/model/document';
import { createRunning } from './running';

const design = fernhollow();
const cut: Scenario = benchedScenario(design, [{ at: 1, do: 'link-down', link: 'l13' }], 20);
/** Nine switches, each linked with each, and enough trees of different roots that each has a clock of its own. */
function manyTrees(): Design {
  const names = [...'abcdefghi'];
  const vids = Array.from({ length: 50 }, (_, i) => 2 + i);
  const cables = names.flatMap((a, i) => names.flatMap((b, j) => (i < j ? [`${a} ${j + 1} = ${b} ${i + 1}`] : [])));
  const priorities = (i: number) =>
    Object.fromEntries(
      vids.map((vid) => [`vlan:${vid}`, { priority: 4096 * ((i * vid + Math.floor(vid / 15)) % 15) }]),
    );
  const switches = names.map((name, i) => [name, { dialect: 'per-vlan-rstp', trees: priorities(i) }]);
  return networkOf(Object.fromEntries(switches), cables, {}, { vlans: vids.map((id) => ({ id })) });
}
const untold = () => undefined;
const running = () => createRunning((answer) => answer);

it('answers nothing, in words, before anything has run', async () => {
  const idle = running();
  expect(await idle.frames(null, null, 5)).toEqual({ ok: false, error: 'Nothing has run yet.' });
  expect(await idle.capture(null)).toEqual({ ok: false, error: 'Nothing has run yet.' });
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
    const count = async (scope: Parameters<typeof own.frames>[0], trees: Parameters<typeof own.frames>[1] = null) => {
      const found = await own.frames(scope, trees, 10);
      return found.ok ? found.value.rows.length + found.value.left : -1;
    };
    const all = await count(null);
    const link = await count({ kind: 'link', link: 'l1' as LinkId });
    expect(await count(null, [tree])).toBeLessThan(all);
    expect(link).toBeLessThan(all);
    expect(await count({ kind: 'port', switch: 'ridge-a' as SwitchId, port: '1' as PortId })).toBe(link); // a link has two ends, and both hear all of it
    const saved = async (scope: Parameters<typeof own.capture>[0]) => {
      const bytes = await own.capture(scope);
      const capture = bytes.ok ? decodePcapng(bytes.value) : bytes;
      return capture.ok ? capture.value : null;
    };
    expect((await saved({ kind: 'link', link: 'l1' as LinkId }))!.interfaces).toEqual(['ridge-a 1 = ridge-b 1']);
    expect((await saved(null))!.frames.length).toBeGreaterThanOrEqual(all);
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
    expect((await own.frames(null, null, 1)).ok).toBe(true);
  });
  it('gives way to the next: what is asked afterwards is asked of that one', async () => {
    const own = running();
    const first = own.run(design, longScenario(design), untold);
    const second = own.run(design, cut, untold);
    await Promise.all([first, second]);
    const frames = await own.frames(null, null, 1_000_000);
    expect(frames.ok && Math.max(...frames.value.rows.map((row) => row.t))).toBeLessThanOrEqual(20 * SECOND);
  });
  it('is the same where a helper runs some of it, and where that helper fails', async () => {
    const large = manyTrees();
    const dies = benchedScenario(large, [{ at: 1, do: 'link-down', link: 'l3' }], 20);
    const asked = jest.fn(() => [helperBeside()]);
    const [alone, helped, failed] = [
      running(),
      createRunning((answer) => answer, asked),
      createRunning(
        (answer) => answer,
        () => [{ ...helperBeside(), begin: () => Promise.reject(new Error('gone')) }],
      ),
    ];
    const [first, ...others] = await Promise.all([alone, helped, failed].map((own) => own.run(large, dies, untold)));
    expect(asked).toHaveBeenCalledTimes(1);
    const frames = await alone.frames(null, null, 1000);
    for (const [i, other] of [helped, failed].entries()) {
      expect(others[i]).toEqual(first);
      expect(await other.frames(null, null, 1000)).toEqual(frames);
    }
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
