'use client';
/** What cannot wait: revisions that cannot be read, changes that an earlier page did not send, parts that cannot be loaded. */
import { useNews } from '../state/news';
import { useWorkbench, useWorkbenchStore } from '../state/context';
import { describeWrites } from '../state/describeWrites';
import { useWaiting } from '../ui/loading';
import { counted } from '../../core/base/words';
import styles from './frame.module.css';
import { TextButton } from '../ui/TextButton';

export function Notices() {
  const damage = useWorkbench((state) => state.damage);
  const orphaned = useWorkbench((state) => state.orphaned);
  const mend = useWorkbench((state) => state.mend);
  const take = useWorkbench((state) => state.takeOrphaned);
  const design = useWorkbench((state) => state.design);
  const waiting = useWaiting();
  const store = useWorkbenchStore();
  const [kept] = orphaned;
  const { event, seen } = useNews();
  return (
    <>
      {waiting && (
        <p className={styles.notice} role="status">
          A part of the page cannot be loaded: the server does not answer. It is tried again; what you see stays as it
          is.
        </p>
      )}
      {event && (
        <p className={styles.notice} role="status">
          The network, {timeOfDay(event.at)}: {event.text}{' '}
          <TextButton
            onClick={() => {
              seen();
              store.getState().setLens('Observe');
              store.getState().openDrawer('watch');
            }}
          >
            what happened
          </TextButton>{' '}
          <TextButton does="plain" onClick={seen}>
            seen
          </TextButton>
        </p>
      )}
      {damage && (
        <p className={styles.notice} role="alert" title={damage.why}>
          Revisions {damage.good + 1} to {damage.head} of this design cannot be read; this is revision {damage.good},
          the last good one. Nothing is thrown away: Export saves what you see.{' '}
          <TextButton does="edit" onClick={mend}>
            go on from revision {damage.good}
          </TextButton>
        </p>
      )}
      {kept && (
        <p className={styles.notice} role="alert">
          {counted(kept.writes.length, 'change')} from{' '}
          {new Date(kept.at).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })} never reached the
          server: {describeWrites(design, kept.writes)}.{' '}
          <TextButton does="edit" onClick={() => void take(kept, 'send')}>
            make {kept.writes.length === 1 ? 'it' : 'them'} now
          </TextButton>{' '}
          <TextButton does="remove" onClick={() => void take(kept, 'drop')}>
            drop {kept.writes.length === 1 ? 'it' : 'them'}
          </TextButton>
        </p>
      )}
    </>
  );
}

const timeOfDay = (at: number): string => new Date(at).toLocaleTimeString('en-GB');
