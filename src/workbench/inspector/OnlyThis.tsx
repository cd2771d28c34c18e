'use client';
/** Narrows the map to what is selected: with what it is cabled to, or with its ways to the root. */
import { isHidden } from '../state/looking';
import { itemsOf, switchesOf } from '../state/selection';
import { useWorkbench, useWorkbenchStore } from '../state/context';
import styles from '../ui/panel.module.css';
import { TextButton } from '../ui/TextButton';

/** So few switches are seen at a glance. */
const FEW = 4;

export function OnlyThis() {
  const store = useWorkbenchStore();
  const worth = useWorkbench((state) => state.selection !== null && state.design.switches.length > FEW);
  const ways = useWorkbench((state) => state.shownTrees.length > 0 && !isHidden(state));
  const focus = useWorkbench((state) => state.focus);
  const setFocus = useWorkbench((state) => state.setFocus);
  if (!worth) return null;
  const narrow = (kind: 'around' | 'ways') => () => {
    const { design, selection } = store.getState();
    const switches = [...new Set(itemsOf(selection).flatMap((item) => switchesOf(design, item)))];
    setFocus(kind === 'around' ? { kind, switches, hops: 1 } : { kind, switches });
  };
  return (
    <p className={styles.sub} role="group" aria-label="On the map">
      On the map: <TextButton onClick={narrow('around')}>only this</TextButton>
      {ways && (
        <>
          {' or '}
          <TextButton onClick={narrow('ways')}>only its ways to the root</TextButton>
        </>
      )}
      {focus && (
        <>
          {' or '}
          <TextButton does="plain" onClick={() => setFocus(null)}>
            show all
          </TextButton>
        </>
      )}
    </p>
  );
}
