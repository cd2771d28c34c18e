'use client';
/** Ways to let others look: a link to what is shown, a page that changes nothing, one file that needs no server. */
import Button from '@mui/material/Button';
import { useState } from 'react';
import { useWorkbench, useWorkbenchStore } from '../../state/context';
import { api } from '../../state/api';
import { linkTo } from '../../state/link';
import room from './handOver.module.css';

export function ShareTable() {
  const id = useWorkbench((state) => state.id);
  const saved = useWorkbench((state) => state.save.kind === 'saved');
  const isLinked = useWorkbench(({ looking: { kind } }) => kind === 'present' || kind === 'revision');
  const store = useWorkbenchStore();
  const [told, tell] = useState('');
  const address = (to: 'change' | 'read') => `${window.location.origin}${linkTo(store.getState(), to)}`;
  const copy = async (to: 'change' | 'read') => {
    try {
      await navigator.clipboard.writeText(address(to));
      tell('Copied.');
    } catch {
      tell(`The browser did not let it be copied: ${address(to)}`);
    }
  };
  return (
    <div className={room.share}>
      <section aria-label="A link">
        <h3>A link to what is shown</h3>
        <p>
          The view, the trees, what is selected, and the revision that is looked at. Whoever opens it can change the
          design.
        </p>
        <Button size="small" variant="outlined" disabled={!isLinked} onClick={() => void copy('change')}>
          Copy the link
        </Button>
      </section>
      <section aria-label="A page to look at">
        <h3>A page to look at</h3>
        <p>The same on this server, where nothing can be changed. It follows the design.</p>
        <Button size="small" variant="outlined" href={`/designs/${encodeURIComponent(id)}/read`} target="_blank">
          Open the page
        </Button>{' '}
        <Button size="small" variant="outlined" disabled={!isLinked} onClick={() => void copy('read')}>
          Copy its link
        </Button>
      </section>
      <section aria-label="One file">
        <h3>One file</h3>
        <p>The map, trees and tables as they are now, live, in one HTML file of 5 MB that works from a disk.</p>
        <Button size="small" variant="outlined" disabled={!saved} href={api.pagePath(id)} download>
          Save the file
        </Button>
      </section>
      <p role="status">{told}</p>
    </div>
  );
}
