'use client';
/** Who else has this design open, and where they look. */
import Menu from '@mui/material/Menu';
import { useState } from 'react';
import { useWorkbench } from '../state/context';
import { counted } from '../../core/base/words';
import styles from './frame.module.css';
import { TextButton } from '../ui/TextButton';

export function Onlookers() {
  const others = useWorkbench((state) => state.others);
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  if (others.length === 0) return null;
  return (
    <>
      <TextButton
        does="plain"
        onClick={(event) => setAnchor(event.currentTarget)}
        aria-haspopup="true"
        title="other windows in which this design is open, here or elsewhere"
      >
        {counted(others.length, 'other window')}
      </TextButton>
      <Menu open={anchor !== null} anchorEl={anchor} onClose={() => setAnchor(null)}>
        <ul className={styles.onlookers} aria-label="Other windows">
          {others.map(({ window, name, lens, at }) => (
            <li key={window}>
              <b>Window {name}</b>: {lens}
              {at ? `, ${at}` : ', nothing selected'}
            </li>
          ))}
        </ul>
      </Menu>
    </>
  );
}
