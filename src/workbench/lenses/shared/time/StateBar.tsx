'use client';
/** A stretch of time in one state: a bar, or a dotted line where nothing stands; its text where there is room. */
import type { RunRole, RunState } from '../../../../core/modes/entity';
import { ROLE_LETTERS } from '../../../ui/words/roles';
import styles from '../clock.module.css';
import { ROW } from './LaneList';

/** How high a bar stands for each state: the nearer to forwarding, the higher. */
const HEIGHTS: Readonly<Record<RunState, number>> = {
  disabled: 0,
  blocking: 2,
  discarding: 2,
  listening: 6,
  learning: 10,
  forwarding: 14,
};

export interface StretchProps<S> {
  /** Pixels. */
  readonly from: number;
  readonly to: number;
  readonly state: S;
  readonly title: string;
}

/** A port in a role and a state. */
export function PortBar({
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

export function StateBar({
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
