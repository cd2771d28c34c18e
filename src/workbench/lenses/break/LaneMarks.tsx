'use client';
/** Actions and topology changes of a run, above its lanes. */
import { useMemo } from 'react';
import type { Micros } from '../../../core/modes/entity';
import { actionText } from '../../../core/sim/scenario/scenario';
import { timeText, useClock } from '../../state/clock';
import { counted } from '../../../core/base/words';
import type { LaneRoom } from '../shared/time/LaneList';

export function LaneMarks({ room: { scale, axis } }: { readonly room: LaneRoom }) {
  const trace = useClock((clock) => clock.player!.trace);
  const seek = useClock((clock) => clock.seek);
  const design = useClock((clock) => clock.player!.trace.design);
  const holds = useClock((clock) => clock.holds);
  const flushes = useMemo(() => {
    const marks = new Map<number, { readonly t: Micros; ports: number }>();
    for (const t of trace.flushes) {
      const at = Math.round(scale.at(t) * axis);
      const mark = marks.get(at) ?? { t, ports: 0 };
      mark.ports += 1;
      marks.set(at, mark);
    }
    return [...marks];
  }, [trace, scale, axis]);
  return (
    <>
      {trace.actions.map((action, i) => {
        const at = scale.at(Math.round(action.at * 1_000_000)) * axis;
        return (
          <path
            key={i}
            d={`M${at - 4} 1h8v8l-4 4l-4-4z`}
            fill="var(--accent)"
            style={{ cursor: 'pointer' }}
            onClick={() => seek(Math.round(action.at * 1_000_000))}
          >
            <title>{`${timeText(action.at * 1_000_000)}: ${actionText(design, action)}`}</title>
          </path>
        );
      })}
      {holds.map(({ t, text }) => (
        <path
          key={t}
          d={`M${scale.at(t) * axis - 9} 1v11m-4 0v-11`}
          stroke="var(--ink)"
          strokeWidth={2}
          data-hold={t}
          onClick={() => seek(t)}
        >
          <title>{text}</title>
        </path>
      ))}
      {flushes.map(([at, { t, ports }]) => (
        <line key={at} x1={at} x2={at} y1={28} y2={34} stroke="var(--ink-soft)" strokeWidth={1.4}>
          <title>{`${timeText(t)}: topology change, addresses forgotten at ${counted(ports, 'port of a tree', 'ports of trees')}`}</title>
        </line>
      ))}
    </>
  );
}

export const shortTime = (t: Micros): string => `${Number((t / 1_000_000).toFixed(3))} s`;
