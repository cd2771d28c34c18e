'use client';
/** The history of revisions in words: look at any, name it, lay two side by side, make it the newest again. */
import Button from '@mui/material/Button';
import type { GridColDef, GridRenderCellParams } from '@mui/x-data-grid';
import { useCallback, useMemo, useState } from 'react';
import { TextButton } from '../../ui/TextButton';
import { api } from '../../state/api';
import { useWorkbench, useWorkbenchStore } from '../../state/context';
import {
  revisionAt,
  revisionName,
  sideBySide,
  solvedOf,
  viewOf,
  type RevisionChoice,
  type SideBySide,
  type Solved,
} from '../../state/revisions';
import { ComparisonView } from './ComparisonView';
import { FilterField, useFilter } from '../../ui/FilterField';
import { Grid } from '../../ui/Grid';
import { useHistory } from './useHistory';
import { NameField } from '../../ui/NameField';
import styles from '../../ui/table.module.css';
import { atPresent, mayEdit } from '../../state/looking';

interface HistoryRow {
  readonly id: number;
  readonly when: string;
  readonly label: string;
  readonly baseline: string;
}

const clockFormat = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' }); // made once: making one takes longer than a hundred uses
const whenText = (at: number): string => (at === 0 ? '' : clockFormat.format(at));

export function HistoryTable() {
  const store = useWorkbenchStore();
  const id = useWorkbench((state) => state.id);
  const saved = useWorkbench((state) => (state.save.kind === 'saved' && atPresent(state) ? state.revision : null));
  const present = useWorkbench(mayEdit);
  const { entries, trouble: unread, again } = useHistory(id, saved);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [naming, setNaming] = useState<number | null>(null);
  const [compared, setCompared] = useState<SideBySide | null>(null);
  const [first, setFirst] = useState<RevisionChoice | null>(null);

  const nameOf = useCallback(
    (revision: number) => revisionName(revision, entries?.find((entry) => entry.number === revision)?.baseline ?? null),
    [entries],
  );
  const solvedAt = useCallback(
    async (choice: RevisionChoice): Promise<Solved | null> => {
      if (choice === 'now') {
        store.getState().look(null);
        const { design, revision } = store.getState();
        return solvedOf(design, revision, 'now');
      }
      const found = await revisionAt(id, choice, nameOf(choice));
      setTrouble(found.ok ? null : found.error);
      return found.ok ? found.value : null;
    },
    [store, id, nameOf],
  );
  const look = useCallback(
    async (revision: number) => {
      const found = await solvedAt(revision);
      if (found) store.getState().look({ ...found, kind: 'revision', moved: null });
    },
    [solvedAt, store],
  );
  const restore = useCallback(
    async (revision: number) => {
      const found = await solvedAt(revision);
      if (found) setTrouble(store.getState().restore(revision, found.design));
    },
    [solvedAt, store],
  );
  const compare = useCallback(
    async (before: RevisionChoice, after: RevisionChoice) => {
      const [a, b] = [await solvedAt(before), await solvedAt(after)];
      if (!a || !b) return;
      const result = sideBySide(a, b);
      setCompared(result);
      if (after === 'now') store.getState().mark(viewOf(result).moved);
      else store.getState().look(viewOf(result));
    },
    [solvedAt, store],
  );
  const rows = useMemo(
    () =>
      (entries ?? []).map((entry): HistoryRow => ({
        id: entry.number,
        when: whenText(entry.at),
        label: entry.label,
        baseline: entry.baseline ?? '',
      })),
    [entries],
  );
  const filter = useFilter(rows);
  const columns = useMemo(
    (): GridColDef<HistoryRow>[] => [
      { field: 'id', headerName: 'Revision', type: 'number', width: 84 },
      { field: 'when', headerName: 'When', width: 150 },
      { field: 'label', headerName: 'What', flex: 1, minWidth: 240 },
      { field: 'baseline', headerName: 'Baseline', width: 150 },
      {
        field: 'do',
        headerName: 'Actions',
        width: 330,
        sortable: false,
        renderCell: ({ row }: GridRenderCellParams<HistoryRow>) => (
          <span onClick={(event) => event.stopPropagation()}>
            <TextButton onClick={() => void look(row.id)} aria-label={`look at revision ${row.id}`}>
              look
            </TextButton>{' '}
            {first === null ? (
              <>
                <TextButton
                  onClick={() => void compare(row.id, 'now')}
                  aria-label={`compare revision ${row.id} with now`}
                >
                  with now
                </TextButton>{' '}
                <TextButton
                  onClick={() => setFirst(row.id)}
                  aria-label={`with …: compare revision ${row.id} with another`}
                >
                  with …
                </TextButton>
              </>
            ) : first === row.id ? (
              <TextButton does="plain" onClick={() => setFirst(null)}>
                not this one
              </TextButton>
            ) : (
              <TextButton
                onClick={() => {
                  setFirst(null);
                  void compare(Math.min(first as number, row.id), Math.max(first as number, row.id));
                }}
              >
                with revision {first}
              </TextButton>
            )}{' '}
            <TextButton
              does="edit"
              onClick={() => setNaming(row.id)}
              aria-label={`name revision ${row.id} as a baseline`}
            >
              name
            </TextButton>{' '}
            <TextButton does="edit" onClick={() => void restore(row.id)} aria-label={`restore revision ${row.id}`}>
              restore
            </TextButton>
          </span>
        ),
      },
    ],
    [look, compare, restore, first],
  );
  const close = () => {
    setCompared(null);
    store.getState().look(null);
    store.getState().forgetMoved();
  };
  if (compared) return <ComparisonView {...compared} close={close} />;
  if (!entries) return <p className={styles.empty}>{unread ?? trouble ?? 'Fetching the history.'}</p>;
  const named = entries.find((entry) => entry.number === naming);
  return (
    <>
      <FilterField {...filter} what="revisions" example="priority">
        {first !== null && <span>Choose the revision to compare with {nameOf(first as number)}.</span>}
        {!present && (
          <Button variant="contained" onClick={() => store.getState().look(null)}>
            Go back to now
          </Button>
        )}
      </FilterField>
      {(trouble ?? unread) && (
        <p className={styles.fault} role="alert">
          {trouble ?? unread}
        </p>
      )}
      {naming !== null && (
        <NameField
          key={naming}
          label={`Name of revision ${naming} as a baseline; empty for none`}
          value={named?.baseline ?? ''}
          close={() => setNaming(null)}
          commit={async (name) => {
            const done = await api.nameBaseline(id, naming, name === '' ? null : name);
            if (!done.ok) return done.error.message;
            again();
            return null;
          }}
        />
      )}
      <Grid
        aria-label="History of revisions"
        rows={filter.rows}
        columns={columns}
        onOpen={(row) => void look(row.id)}
      />
    </>
  );
}
