/** The rail's foot: how many intents hold. */
import { useWorkbench, useWorkbenchStore } from '../state/context';
import { isHidden } from '../state/looking';
import { useStandings, useWaiting } from '../state/standings';
import { counted } from '../../core/base/words';
import styles from './rail.module.css';

export function IntentsFoot() {
  const store = useWorkbenchStore();
  const standings = useStandings();
  const waiting = useWaiting();
  const hidden = useWorkbench(isHidden);
  if (standings.length === 0 || hidden) return null;
  const count = (is: (typeof standings)[number]['is']): number => standings.filter((each) => each.is === is).length;
  const [broken, waits] = [count('broken') + count('unreadable'), count('waits')];
  const open = () => {
    const { setLens, openDrawer } = store.getState();
    setLens('Prove');
    openDrawer('intents');
  };
  return (
    <button type="button" className={styles.foot} onClick={open} title="every intent, with why it does not hold">
      <span>
        {count('holds')} of {counted(standings.length, 'intent')} hold
      </span>
      {broken > 0 && <b>{broken} broken</b>}
      {waits > 0 && (
        <span>
          {waits} not known yet{waiting === null ? '' : `: ${Math.round(waiting * 100)} %`}
        </span>
      )}
    </button>
  );
}
