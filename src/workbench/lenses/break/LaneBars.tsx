'use client';
/** What a lane shows over time: state bars with role letters, members of bundles, pairs that are cut off. */
import { memo } from 'react';
import type { Micros } from '../../../core/modes/entity';
import type { MemberState } from '../../../core/modes/lacp/state';
import { timeText } from '../../state/clock';
import { strandStyle } from '../../ui/strandStyle';
import styles from '../shared/clock.module.css';
import type { Lane } from './laneRows';
import { ROW } from '../shared/time/LaneList';
import type { Scale } from '../shared/time/scale';
import { PortBar, StateBar, type StretchProps } from '../shared/time/StateBar';

export const LaneBars = memo(function LaneBars({
  lane,
  scale,
  axis,
}: {
  readonly lane: Lane;
  readonly scale: Scale;
  readonly axis: number;
}) {
  const x = (t: Micros): number => scale.at(t) * axis;
  return (
    <svg width={axis} height={ROW} className={styles.bars} aria-label={laneText(lane)} role="img">
      <line x1={0} x2={axis} y1={ROW - 2.5} y2={ROW - 2.5} stroke="var(--rule)" />
      {lane.kind === 'pair'
        ? lane.cuts.map(({ from, to, cause }) => (
            <g key={from}>
              <rect x={x(from)} y={3} width={Math.max(2, x(to) - x(from))} height={ROW - 6} fill="var(--ink)">
                <title>{`${timeText(from)} to ${timeText(to)}: ${cause}`}</title>
              </rect>
              {x(to) - x(from) > cause.length * 6.6 + 8 && (
                <text x={x(from) + 5} y={ROW - 6.2} className={styles.cause}>
                  {cause}
                </text>
              )}
            </g>
          ))
        : lane.kind === 'member'
          ? lane.stays.map(({ from, to, state }) => (
              <MemberBar
                key={from}
                from={x(from)}
                to={x(to)}
                state={state}
                title={`${timeText(from)} to ${timeText(to)}: ${state}`}
              />
            ))
          : lane.stretches.map(({ from, to, state, role }) => (
              <PortBar
                key={from}
                from={x(from)}
                to={x(to)}
                state={state}
                role={role}
                colour={strandStyle(lane.treeIndex).colour}
                title={`${timeText(from)} to ${timeText(to)}: ${role}, ${state}`}
              />
            ))}
    </svg>
  );
});

/** How high a member's bar stands: the nearer to carrying frames, the higher. */
const MEMBER_HEIGHTS: Readonly<Record<MemberState, number>> = {
  down: 0,
  waiting: 3,
  standby: 5,
  individual: 9,
  active: 14,
};

function MemberBar({ state, ...stretch }: StretchProps<MemberState>) {
  return (
    <StateBar
      {...stretch}
      height={MEMBER_HEIGHTS[state]}
      full={state === 'active'}
      opacity={state === 'active' ? 0.85 : 0.4}
      colour="var(--ink-soft)"
      text={state}
      room={state.length * 6.2 + 8}
    />
  );
}

const laneText = (lane: Lane): string =>
  lane.kind === 'pair'
    ? `${lane.label}, ${lane.trees}: ${lane.cuts.length === 0 ? 'reached all the time' : lane.cuts.map(({ from, to, cause }) => `cut off ${timeText(from)} to ${timeText(to)}, ${cause}`).join('; ')}`
    : lane.kind === 'member'
      ? `${lane.label}, ${lane.trees}: ${lane.stays.map(({ from, state }) => `from ${timeText(from)} ${state}`).join('; ')}`
      : `${lane.label}${lane.trees ? `, ${lane.trees}` : ''}: ${lane.stretches.map(({ from, role, state }) => `from ${timeText(from)} ${role} ${state}`).join('; ')}`;
