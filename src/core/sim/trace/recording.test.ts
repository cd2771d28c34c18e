import fc from 'fast-check';
import { fernhollow } from '../../demo/demos';
import { SECOND, type RunRole, type RunState } from '../../modes/entity';
import { solutionOf } from '../../testing/networks';
import { bridgeKeys } from '../engine/bridgeKeys';
import { causeText } from '../report/causeText';
import { EventQueue } from '../engine/eventQueue';
import { RUN_ROLES, RUN_STATES, Recording } from './recording';
import { readScenario } from '../scenario/scenario';
import { simulate } from '../simulate';
import { tries } from '../../testing/runs';

describe('a recording', () => {
  const anyChange = fc.record({
    wait: fc.nat(3),
    tree: fc.nat(1),
    port: fc.nat(4),
    to: fc.constantFrom<RunState>(...RUN_STATES),
    role: fc.constantFrom<RunRole>(...RUN_ROLES),
  });
  it('knows every instant as going through all changes does', () => {
    fc.assert(
      fc.property(fc.array(anyChange, { maxLength: 1200, size: '+2' }), fc.nat(4000), (changes, instant) => {
        const recording = new Recording(2, 5, () => ['disabled', 'disabled']);
        const now = Array.from({ length: 10 }, (): [RunState, RunRole] => ['disabled', 'disabled']);
        let t = 0;
        let last = null as number | null;
        changes.forEach(({ wait, tree, port, to, role }, i) => {
          t += wait;
          recording.add({ t, tree, port, from: 'disabled', to, role, held: false, cause: { kind: 'timer' } });
          if (t > instant) return;
          now[tree * 5 + port] = [to, role];
          if (tree === 1 && port === 2) last = i;
        });
        const picture = recording.pictureAt(instant);
        for (let tree = 0; tree < 2; tree += 1)
          for (let port = 0; port < 5; port += 1)
            expect([recording.stateIn(picture, tree, port), recording.roleIn(picture, tree, port)]).toEqual(
              now[tree * 5 + port],
            );
        expect(recording.whyAt(1, 2, instant)).toEqual(last === null ? null : recording.change(last));
      }),
      { numRuns: tries(30) },
    );
  });

  it('tells what each change followed from: states in a row fit together, and every cause has its words', () => {
    const design = fernhollow();
    const scenario = readScenario(
      {
        actions: [
          { at: 1, do: 'link-down', link: 'l13' },
          { at: 2, do: 'bridge-priority', switch: 'ridge-a', priority: 0 },
        ],
      },
      design,
    );
    const run = scenario.ok ? simulate(design, scenario.value) : scenario;
    if (!run.ok) throw new Error('not run');
    const { recording, trace } = run.value;
    expect(recording.count).toBe(trace.length);
    const { network } = solutionOf(design);
    const keys = bridgeKeys(network);
    const words = new Set<string>();
    const before = new Map<string, RunState>();
    for (let i = 0; i < recording.count; i += 1) {
      const { tree, port, from, to, cause } = recording.change(i);
      const key = `${tree} ${port}`;
      expect(from).toBe(before.get(key) ?? from);
      before.set(key, to);
      words.add(causeText(network, keys, cause).replace(/.* heard /, ''));
    }
    expect(
      [...words].some((text) =>
        /^an RST BPDU: root \d+\.02:4b:00:00:00:\w\w at [\d\u202f]+, from .*; designated, proposal/.test(text),
      ),
    ).toBe(true);
    expect(words).toContain('signal came or went');
    expect(words).toContain('a setting was changed');
    const why = recording.whyAt(1, network.portIndexOf(network.switches[0]!.id, network.ports[6]!.id), 1.5 * SECOND);
    expect(why).toMatchObject({ t: SECOND, to: 'disabled', cause: { kind: 'signal' } });
  });
});

describe('the queue', () => {
  it('gives what is earliest, and of equals what came first', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(20), { maxLength: 400 }), (times) => {
        const queue = new EventQueue<number>();
        times.forEach((t, i) => queue.push(t, i));
        const order = times
          .map((t, i) => [t, i] as const)
          .sort((a, b) => a[0] - b[0] || a[1] - b[1])
          .map(([, i]) => i);
        expect(times.map(() => queue.pop())).toEqual(order);
        expect([queue.size, queue.next]).toEqual([0, Infinity]);
      }),
    );
  });
  it('stays in order while things come and go', () => {
    fc.assert(
      fc.property(fc.array(fc.option(fc.nat(9)), { maxLength: 300 }), (steps) => {
        const queue = new EventQueue<readonly [number, number]>();
        let last: readonly [number, number] = [-1, -1];
        steps.forEach((wait, i) => {
          if (wait !== null) queue.push(Math.max(0, last[0]) + wait, [Math.max(0, last[0]) + wait, i]);
          else if (queue.size > 0) {
            const next = queue.pop();
            expect(next[0] > last[0] || (next[0] === last[0] && next[1] > last[1])).toBe(true);
            last = next;
          }
        });
      }),
    );
  });
});
