'use client';
/** What the map leaves out, and the way back to all of it. */
import { TextButton } from '../ui/TextButton';
import { useWorkbench } from '../state/context';
import { counted } from '../../core/base/words';
import type { Focus } from '../../core/analysis/focus/focus';
import { useFocused } from './mapDesign';
import { memo } from 'react';
import styles from './map.module.css';

export const FocusBar = memo(function FocusBar() {
  const focus = useWorkbench((state) => state.focus);
  const setFocus = useWorkbench((state) => state.setFocus);
  const nameOf = useWorkbench((state) => {
    const [first] = focus && 'switches' in focus ? focus.switches : [];
    return state.design.switches.find((sw) => sw.id === first)?.name ?? first ?? '';
  });
  const total = useWorkbench((state) => state.design.switches.length);
  const shown = useFocused();
  if (!focus || !shown) return null;
  return (
    <div className={styles.moved} role="status" aria-label="Focus">
      <span>
        Only {focusText(focus, nameOf)}: {shown.size} of {counted(total, 'switch', 'switches')}.
      </span>
      {focus.kind === 'around' && (
        <>
          <TextButton does="plain" onClick={() => setFocus({ ...focus, hops: focus.hops + 1 })}>
            one link more
          </TextButton>
          <TextButton
            does="plain"
            disabled={focus.hops === 0}
            onClick={() => setFocus({ ...focus, hops: focus.hops - 1 })}
          >
            one less
          </TextButton>
        </>
      )}
      <TextButton does="plain" onClick={() => setFocus(null)}>
        show all
      </TextButton>
    </div>
  );
});

/** What is in focus; `name` is its first switch's. */
export function focusText(focus: Focus, name: string): string {
  switch (focus.kind) {
    case 'blocks':
      return 'what blocks in the trees shown';
    case 'moved':
      return 'what just moved';
    case 'ways':
      return `the ways to the root of ${several(name, focus.switches.length)}`;
    case 'around':
      return focus.hops === 0
        ? several(name, focus.switches.length)
        : `${several(name, focus.switches.length)} and what is ${focus.hops === 1 ? 'a link' : `up to ${focus.hops} links`} away`;
  }
}

const several = (name: string, count: number): string =>
  count === 1 ? name.slice(0, 60) : `${name.slice(0, 60)} and ${counted(count - 1, 'other')}`;
