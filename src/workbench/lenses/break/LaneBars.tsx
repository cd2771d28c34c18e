'use client';
/** What a lane shows over time: state bars with role letters, members of bundles, pairs that are cut off. */
import { memo } from 'react';
import type { Micros, RunRole, RunState } from '../../../core/modes/entity';
import type { MemberState } from '../../../core/modes/lacp/state';
import { timeText } from '../../state/clock';
import { strandStyle } from '../../ui/strandStyle';
import { ROLE_LETTERS } from '../../ui/words/roles';
import styles from '../shared/clock.module.css';
import type { Lane } from './laneRows';
import type { Scale } from './scale';

/** How high a lane is. */
export const ROW = 20;

/** How high a bar stands for each state: the nearer to forwarding, the higher. */
const HEIGHTS: Readonly<Record<RunState, number>> = {
  disabled: 0,
  blocking: 2,
  discarding: 2,
  listening: 6,
  learning: 10,
  forwarding: 14,
};

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

interface StretchProps<S> {
  readonly from: number;
  readonly to: number;
  readonly state: S;
  readonly title: string;
}

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

function PortBar({
  state,
  role,
  ...stretch
}: StretchProps<RunState> & { readonly role: RunRole; readonly colour: string }) {
  return (
    <StateBar
      {...stretch}
      height={HEIGHTS[state]}
      full={state === 'forwarding'}
      opacity={state === 'forwarding' ? 1 : 0.55}
      text={role === 'disabled' ? '–' : ROLE_LETTERS[role]}
      room={13}
    />
  );
}

/** A stretch of time in one state: a bar, or a dotted line where nothing stands; its text where there is room. */
function StateBar({
  from,
  to,
  title,
  height,
  full,
  opacity,
  colour,
  text,
  room,
}: {
  readonly from: number;
  readonly to: number;
  readonly title: string;
  readonly height: number;
  /** Frames pass. */
  readonly full: boolean;
  readonly opacity: number;
  readonly colour: string;
  readonly text: string;
  /** How long the stretch must be for its text. */
  readonly room: number;
}) {
  return (
    <g>
      <rect x={from} y={2} width={Math.max(0, to - from)} height={ROW - 4} fill="transparent">
        <title>{title}</title>
      </rect>
      {height > 0 ? (
        <rect
          x={from}
          y={ROW - 3 - height}
          width={Math.max(1.2, to - from)}
          height={height}
          fill={colour}
          fillOpacity={opacity}
          pointerEvents="none"
        />
      ) : (
        <line
          x1={from}
          x2={to}
          y1={ROW - 8}
          y2={ROW - 8}
          stroke="var(--ink-soft)"
          strokeDasharray="2 4"
          pointerEvents="none"
        />
      )}
      {to - from > room && (
        <text
          x={from + 3.5}
          y={ROW - 6.4}
          className={styles.letter}
          fill={full ? 'var(--paper)' : 'var(--ink)'}
          pointerEvents="none"
        >
          {text}
        </text>
      )}
    </g>
  );
}

const laneText = (lane: Lane): string =>
  lane.kind === 'pair'
    ? `${lane.label}, ${lane.trees}: ${lane.cuts.length === 0 ? 'reached all the time' : lane.cuts.map(({ from, to, cause }) => `cut off ${timeText(from)} to ${timeText(to)}, ${cause}`).join('; ')}`
    : lane.kind === 'member'
      ? `${lane.label}, ${lane.trees}: ${lane.stays.map(({ from, state }) => `from ${timeText(from)} ${state}`).join('; ')}`
      : `${lane.label}${lane.trees ? `, ${lane.trees}` : ''}: ${lane.stretches.map(({ from, role, state }) => `from ${timeText(from)} ${role} ${state}`).join('; ')}`;
