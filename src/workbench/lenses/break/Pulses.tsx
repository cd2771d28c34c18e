'use client';
/** BPDUs on their way at the instant shown, where they are few enough to see: short dashes that travel along the links. */
import { SECOND } from '../../../core/modes/entity';
import { HANDLING, LINK_DELAY } from '../../../core/sim/engine/delays';
import { useClock, useInstant } from '../../state/clock';
import { useWorkbench } from '../../state/context';
import type { Line } from '../../map/geometry';
import { polyline, courseOf } from '../../map/run';
import { strandStyle } from '../../ui/strandStyle';

/** More at a time would be a haze. */
const MOST = 60;
/** How long a message is on its way before our eyes while the clock plays, seconds of ours. */
const SEEN = 0.35;
const LENGTH = 13;

export function Pulses({ lines }: { readonly lines: readonly Line[] }) {
  const t = useInstant((clock) => clock.t);
  const playing = useClock((clock) => clock.playing);
  const player = useClock((clock) => clock.player);
  const shown = useWorkbench((state) => state.shownTrees);
  if (t === null || !player) return null;
  const { trace, network } = player;
  const { times, ports, trees } = trace.sent;
  const flight = Math.max(LINK_DELAY + HANDLING, typeof playing === 'number' ? playing * SEEN * SECOND : 0);
  const wanted = shown.map((tree) => trace.trees.indexOf(tree));
  const last = upTo(times, t);
  const lineOf = new Map(lines.map((line) => [line.link, line]));
  const found: {
    readonly line: Line;
    readonly share: number;
    readonly forth: boolean;
    readonly place: number;
    readonly tree: number;
    readonly i: number;
  }[] = [];
  for (let i = last - 1; i >= 0 && times[i]! > t - flight; i -= 1) {
    const [tree, port] = [trees[i]!, ports[i]!];
    const place = wanted.indexOf(tree);
    const l = network.link[port]!;
    const line = l < 0 ? undefined : lineOf.get(network.design.links[l]!.id);
    if (place < 0 || !line) continue;
    if (found.length === MOST) return null;
    const { a } = network.design.links[l]!;
    found.push({
      line,
      share: (t - times[i]!) / flight,
      forth: network.portIndexOf(a.switch, a.port) === network.transmitPort[port],
      place,
      tree,
      i,
    });
  }
  return (
    <g fill="none" pointerEvents="none" data-pulses={found.length}>
      {found.map(({ line, share, forth, place, tree, i }) => {
        const run = courseOf(line, (place - (wanted.length - 1) / 2) * line.gap);
        const room = Math.max(0, run.length - 2 * LENGTH) / run.length;
        const at = (forth ? share : 1 - share) * room + (1 - room) / 2;
        const half = LENGTH / 2 / run.length;
        const [from, to] = [run.along(Math.max(0, at - half)), run.along(Math.min(1, at + half))];
        return (
          <g key={i}>
            <path d={polyline([from, to])} stroke="var(--paper)" strokeWidth={10} />
            <path d={polyline([from, to])} stroke={strandStyle(tree).colour} strokeWidth={7} />
          </g>
        );
      })}
    </g>
  );
}

/** How many of the rising `times` are not after `t`. */
function upTo(times: Float64Array, t: number): number {
  let [low, high] = [0, times.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (times[middle]! <= t) low = middle + 1;
    else high = middle;
  }
  return low;
}
