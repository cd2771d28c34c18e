'use client';
/** Before a worksheet: which tree, networks to practise on, and how earlier ones went. */
import Button from '@mui/material/Button';
import { useState } from 'react';
import { treeName, type TreeId } from '../../../../core/model/ids';
import type { Worksheet } from '../../../../core/model/document';
import { TextButton } from '../../../ui/TextButton';
import { useFollowing, useWorkbench } from '../../../state/context';
import { PracticeChoice } from './PracticeChoice';
import styles from './worksheet.module.css';
import { mayEdit } from '../../../state/looking';
import { Select } from '../../../ui/Select';

export function StartSheet() {
  const solution = useFollowing((state) => state.solution);
  const first = useWorkbench((state) => state.shownTrees[0]);
  const open = useWorkbench((state) => state.openWorksheet);
  const viewing = !useWorkbench(mayEdit);
  const kept = useWorkbench((state) => state.design.worksheets);
  const [chosen, choose] = useState<TreeId | null>(null);
  const trees = solution?.trees.map((tree) => tree.id) ?? [];
  const tree = chosen !== null && trees.includes(chosen) ? chosen : first;
  return (
    <div className={styles.start}>
      <section>
        <h3>Work a tree of this design out by hand</h3>
        <p>
          Root, root path costs, roles and states. Everything computed is hidden until you compare your answers with it;
          the result is kept with the design.
        </p>
        {tree === undefined ? (
          <p>No switch here runs spanning tree yet.</p>
        ) : (
          <p className={styles.row}>
            <Select
              label="Tree to work out"
              value={tree}
              options={trees.map((id) => [id, treeName(id)])}
              choose={choose}
            />
            <Button variant="outlined" disabled={viewing} onClick={() => open(tree)}>
              Begin
            </Button>
          </p>
        )}
      </section>
      <section>
        <h3>Or practise on a small network made for it</h3>
        <PracticeChoice />
      </section>
      <Results kept={kept} />
    </div>
  );
}

/** Earlier worksheets, the newest first. */
function Results({ kept }: { readonly kept: readonly Worksheet[] }) {
  const act = useWorkbench((state) => state.act);
  const viewing = !useWorkbench(mayEdit);
  return (
    <section>
      <h3>Results kept with this design</h3>
      {kept.length === 0 ? (
        <p>None yet.</p>
      ) : (
        <>
          <ol className={styles.results} aria-label="Results">
            {[...kept].reverse().map((sheet, i) => (
              <li key={`${sheet.at} ${i}`}>
                <b>
                  {sheet.right} of {sheet.of}
                </b>{' '}
                right in {treeName(sheet.tree)},{' '}
                <span suppressHydrationWarning>
                  {new Date(sheet.at).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}
                </span>
              </li>
            ))}
          </ol>
          {!viewing && (
            <TextButton does="remove" onClick={() => act({ do: 'forget-worksheets' })}>
              forget them
            </TextButton>
          )}
        </>
      )}
    </section>
  );
}
