'use client';
/** All keys, by where they are of use. */
import Dialog from '@mui/material/Dialog';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { ACTION_GROUPS } from '../state/action';
import { ACTIONS } from './actions';
import { useWorkbench } from '../state/context';
import styles from './dialogs.module.css';
import { TextButton } from '../ui/TextButton';

export function KeySheet() {
  const open = useWorkbench((state) => state.dialog === 'keys');
  const openDialog = useWorkbench((state) => state.openDialog);
  return (
    <Dialog open={open} onClose={() => openDialog(null)} maxWidth="md" aria-labelledby="keys-title">
      <DialogTitle id="keys-title" className={styles.title}>
        Keys{' '}
        <TextButton does="plain" onClick={() => openDialog(null)}>
          close
        </TextButton>
      </DialogTitle>
      <DialogContent>
        <div className={styles.groups}>
          {ACTION_GROUPS.map((group) => (
            <section key={group}>
              <h3>{group}</h3>
              <dl>
                {ACTIONS.filter((action) => action.group === group && action.keys).map((action) => (
                  <div key={action.id}>
                    <dt>
                      {action.keys!.map((keys) => (
                        <kbd key={keys}>{keys}</kbd>
                      ))}
                    </dt>
                    <dd>{action.name}</dd>
                  </div>
                ))}
              </dl>
            </section>
          ))}
        </div>
        <p className={styles.note}>
          <TextButton onClick={() => openDialog('glossary')}>Glossary</TextButton>: what each term means. A term with a
          dotted line says it when it is pointed at.
        </p>
        <p className={styles.note}>
          With the pointer: drag to pan, Shift and drag to frame several switches, Ctrl or Shift and click for one thing
          more. Keys typed into a field stay there; Escape in a field brings back its value.
        </p>
      </DialogContent>
    </Dialog>
  );
}
