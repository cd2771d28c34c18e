'use client';
/** The answers beside the computed ones: wrong and blank ones with their why. */
import Button from '@mui/material/Button';
import { useState } from 'react';
import { treeName } from '../../../../core/model/ids';
import type { AnswerMark, Marked } from '../../../../core/analysis/practice/worksheet';
import { TextButton } from '../../../ui/TextButton';
import { useWorkbench } from '../../../state/context';
import { groupText } from '../../../ui/words/units';
import styles from './worksheet.module.css';

const FIELDS: Readonly<Record<AnswerMark['field'], string>> = {
  root: 'root',
  rootPathCost: 'root path cost',
  role: 'role',
  state: 'state',
};

export function MarkedSheet({ marked }: { readonly marked: Marked }) {
  const close = useWorkbench((state) => state.closeWorksheet);
  const again = useWorkbench((state) => state.openWorksheet);
  const switches = useWorkbench((state) => state.design.switches);
  const goTo = useWorkbench((state) => state.goTo);
  const [all, setAll] = useState(false);
  const not = marked.marks.filter((mark) => !mark.right);
  const blank = not.filter((mark) => mark.given === null).length;
  const wrong = [...not].sort((x, y) => Number(x.given === null) - Number(y.given === null));
  const nameOf = (id: string) => switches.find((sw) => sw.id === id)?.name ?? id;
  const told = (mark: AnswerMark, value: string | null) =>
    value === null
      ? 'left blank'
      : mark.field === 'root'
        ? nameOf(value)
        : mark.field === 'rootPathCost'
          ? groupText(Number(value))
          : value;
  return (
    <div className={styles.sheet}>
      <p className={styles.row}>
        <b role="status">
          {marked.right} of {marked.of} right in {treeName(marked.tree)}
          {blank > 0 ? `, ${blank} left blank` : ''}
        </b>
        {wrong.length > 0 && (
          <TextButton aria-pressed={all} onClick={() => setAll(!all)}>
            {all ? 'only what is not right' : 'show the right ones too'}
          </TextButton>
        )}
        <Button variant="outlined" onClick={() => again(marked.tree)}>
          Once more
        </Button>
        <Button onClick={close}>Close</Button>
      </p>
      {wrong.length === 0 && <p className={styles.hint}>Every answer is right.</p>}
      {(all || wrong.length > 0) && (
        <table className={styles.table} aria-label="Answers and computed">
          <thead>
            <tr>
              <th scope="col">Of</th>
              <th scope="col">What</th>
              <th scope="col">Your answer</th>
              <th scope="col">Computed</th>
              <th scope="col">Why</th>
            </tr>
          </thead>
          <tbody>
            {(all ? marked.marks : wrong).map((mark) => (
              <tr key={`${mark.field} ${mark.switch} ${mark.port}`} data-right={mark.right}>
                <th scope="row">
                  {mark.switch === null ? (
                    treeName(marked.tree)
                  ) : (
                    <TextButton
                      onClick={() =>
                        goTo(
                          mark.port === null
                            ? { kind: 'switch', switch: mark.switch! }
                            : { kind: 'port', switch: mark.switch!, port: mark.port },
                        )
                      }
                    >
                      {nameOf(mark.switch)}
                      {mark.port === null ? '' : ` port ${mark.port}`}
                    </TextButton>
                  )}
                </th>
                <td>{FIELDS[mark.field]}</td>
                <td className={mark.right ? undefined : styles.wrong}>{told(mark, mark.given)}</td>
                <td>{told(mark, mark.computed)}</td>
                <td className={styles.why}>{mark.why}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}
