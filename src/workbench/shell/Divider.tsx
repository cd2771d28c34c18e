'use client';
/** The edge between two parts of the window: dragged, or moved by arrow keys; a double click makes it as usual. */
import { useEffect, useRef, type KeyboardEvent, type PointerEvent } from 'react';
import styles from './frame.module.css';

interface Props {
  readonly label: string;
  /** The part whose size it sets lies below it, or to its right. */
  readonly along: 'horizontal' | 'vertical';
  /** The size of that part now, pixels. */
  readonly size: () => number;
  readonly onSize: (size: number | null) => void;
}

/** How far an arrow key moves it, pixels. */
const STEP = 24;
/** No window is larger, pixels. */
const LARGEST = 10_000;

export function Divider({ label, along, size, onSize }: Props) {
  const edge = useRef<HTMLDivElement>(null);
  // The browser alone knows the size that the styles give.
  useEffect(() => edge.current?.setAttribute('aria-valuenow', String(Math.round(size()))));
  const held = useRef<{ readonly at: number; readonly size: number } | null>(null);
  const at = (event: PointerEvent): number => (along === 'horizontal' ? event.clientY : event.clientX);
  const onKey = (event: KeyboardEvent): void => {
    const [more, less] = along === 'horizontal' ? ['ArrowUp', 'ArrowDown'] : ['ArrowLeft', 'ArrowRight'];
    if (event.key !== more && event.key !== less) return;
    event.preventDefault();
    event.stopPropagation();
    onSize(size() + (event.key === more ? STEP : -STEP));
  };
  return (
    <div
      ref={edge}
      className={`${styles.divider} ${along === 'horizontal' ? styles.dividerLying : styles.dividerStanding}`}
      role="separator"
      aria-orientation={along}
      aria-label={label}
      aria-valuenow={0}
      aria-valuemin={0}
      aria-valuemax={LARGEST}
      tabIndex={0}
      title="drag to size; double click for the usual size"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        held.current = { at: at(event), size: size() };
      }}
      onPointerMove={(event) => held.current && onSize(held.current.size + held.current.at - at(event))}
      onPointerUp={() => (held.current = null)}
      onPointerCancel={() => {
        if (held.current) onSize(held.current.size);
        held.current = null;
      }}
      onDoubleClick={() => onSize(null)}
      onKeyDown={onKey}
    />
  );
}
