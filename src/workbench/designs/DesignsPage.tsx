'use client';
/** The list of designs: open, create, import, duplicate, rename, export, delete with a way back. */
import Button from '@mui/material/Button';
import { EXERCISES } from '../../core/demo/exercises';
import { DEMO_NAMES, DEMO_SITES } from '../../core/demo/sites';
import OutlinedInput from '@mui/material/OutlinedInput';
import Snackbar from '@mui/material/Snackbar';
import { useRouter } from 'next/navigation';
import { useMemo, useRef, useState } from 'react';
import type { DesignSummary } from '../../contract/api';
import { drawn } from '../../core/exchange/observation/draw/draw';
import { isObservation, readObservation } from '../../core/exchange/observation/observation';
import { readDesignText } from '../../core/model/read';
import { problemText } from '../../core/model/problem';
import { leanDesign } from '../../core/model/derive/write';
import { Glimpse, useGlance } from './Glimpse';
import { NewDesignForm } from './NewDesignForm';
import { Mark } from '../ui/Mark';
import { SchemeButton } from '../shell/SchemeButton';
import { TextButton } from '../ui/TextButton';
import { WholePageLink } from '../ui/WholePageLink';
import { api, type ApiFailure } from '../state/api';
import { counted } from '../../core/base/words';
import { PracticeChoice } from '../lenses/root/worksheet/PracticeChoice';
import styles from './designs.module.css';

interface Trouble {
  readonly title: string;
  readonly lines: readonly string[];
}
interface Deleted {
  readonly id: string;
  readonly name: string;
}

const MOST_FILE = 8 * 1024 * 1024;
/** Larger files are read by the server alone, in a worker of its own: reading them here would hold the page up. */
const SMALL_FILE = 256 * 1024;

type Order = 'changed' | 'name' | 'size';
const ORDERS: readonly (readonly [Order, string])[] = [
  ['changed', 'last changed first'],
  ['name', 'by name'],
  ['size', 'largest first'],
];
const collator = new Intl.Collator('en', { numeric: true });

/** The designs whose names hold every word, in the order wished for. */
export function inOrder(designs: readonly DesignSummary[], wanted: string, order: Order): readonly DesignSummary[] {
  const words = wanted.toLowerCase().split(/\s+/).filter(Boolean);
  const found = designs.filter(({ name }) => words.every((word) => name.toLowerCase().includes(word)));
  switch (order) {
    case 'changed':
      return found;
    case 'name':
      return [...found].sort((a, b) => collator.compare(a.name, b.name));
    case 'size':
      return [...found].sort((a, b) => b.switches - a.switches || b.links - a.links);
  }
}

export function DesignsPage({
  designs,
  password = false,
}: {
  readonly designs: readonly DesignSummary[];
  readonly password?: boolean;
}) {
  const router = useRouter();
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const [deleted, setDeleted] = useState<Deleted | null>(null);
  const [naming, setNaming] = useState(false);
  const file = useRef<HTMLInputElement>(null);
  const [wanted, setWanted] = useState('');
  const [order, setOrder] = useState<Order>('changed');
  const shown = useMemo(() => inOrder(designs, wanted, order), [designs, wanted, order]);

  /** Runs a request; on failure says so, on success goes on. */
  async function run<T>(
    title: string,
    request: Promise<{ ok: true; value: T } | { ok: false; error: ApiFailure }>,
    then: (value: T) => void,
  ) {
    const result = await request;
    if (!result.ok) return setTrouble({ title, lines: [result.error.message, ...result.error.details] });
    setTrouble(null);
    then(result.value);
  }
  const refresh = () => router.refresh();
  const goOnTour = ({ id }: { id: string }) => window.location.assign(`/designs/${encodeURIComponent(id)}?tour`);
  const goTo = ({ id }: { id: string }) => window.location.assign(`/designs/${encodeURIComponent(id)}`);

  async function importFile(chosen: File) {
    const title = `“${chosen.name}” was not imported`;
    if (chosen.size > MOST_FILE)
      return setTrouble({
        title,
        lines: [`It holds ${Math.ceil(chosen.size / 1024 / 1024)} MiB; 8 MiB is the limit.`],
      });
    const text = await chosen.text();
    // What a network told is drawn.
    const observation = isObservation(text) ? readObservation(text) : null;
    if (observation) {
      const made = observation.ok ? drawn(observation.value) : observation;
      if (!made.ok) return setTrouble({ title, lines: [made.error] });
      return run(title, api.create({ do: 'import', document: leanDesign(made.value.design) }), goTo);
    }
    if (chosen.size > SMALL_FILE) return run(title, api.importText(text), goTo);
    const design = readDesignText(text);
    if (!design.ok) return setTrouble({ title, lines: design.error.map(problemText) });
    await run(title, api.create({ do: 'import', document: leanDesign(design.value) }), goTo);
  }

  return (
    <div className={styles.page}>
      <header className={styles.head}>
        <span className={styles.brand}>
          <Mark /> Knot Path
        </span>
        {password && (
          <form method="post" action="/sign-out">
            <TextButton does="plain" type="submit" title="the password is asked for again">
              Sign out
            </TextButton>
          </form>
        )}
        <SchemeButton />
      </header>
      <main className={styles.main}>
        <div className={styles.title}>
          <div>
            <h1>Designs</h1>
            <p>Each is one switched network: its cables, its trees, and every revision of both.</p>
          </div>
          <div className={styles.actions}>
            <Button variant="outlined" onClick={() => file.current?.click()}>
              Import a file
            </Button>
            {DEMO_SITES.map((site) => (
              <Button
                key={site}
                variant="outlined"
                onClick={() =>
                  void run(
                    'The demo was not added',
                    api.create({ do: 'demo', site }),
                    site === 'observatory' ? goOnTour : goTo,
                  )
                }
              >
                Add {DEMO_NAMES[site]}
              </Button>
            ))}
            <Button variant="contained" onClick={() => setNaming(true)}>
              New design
            </Button>
            <input
              ref={file}
              type="file"
              accept=".json,application/json"
              hidden
              aria-label="Design file"
              onChange={(event) => {
                const [chosen] = event.target.files ?? [];
                event.target.value = '';
                if (chosen) void importFile(chosen);
              }}
            />
          </div>
        </div>
        {naming && (
          <NewDesignForm
            create={(name, mode) =>
              void run('The design was not created', api.create({ do: 'create', name, mode }), goTo)
            }
            close={() => setNaming(false)}
          />
        )}
        {trouble && (
          <div className={styles.trouble} role="alert">
            <strong>{trouble.title}</strong>
            <ul>
              {trouble.lines.map((line, i) => (
                <li key={i}>{line}</li>
              ))}
            </ul>
            <TextButton does="plain" onClick={() => setTrouble(null)}>
              close
            </TextButton>
          </div>
        )}
        {designs.length === 0 ? (
          <p className={styles.empty}>
            No designs. Add the demo to look around, start a new one, or import a .knot.json file.
          </p>
        ) : (
          <>
            <div className={styles.finding}>
              <OutlinedInput
                value={wanted}
                placeholder="Find by name"
                onChange={(event) => setWanted(event.target.value)}
                inputProps={{ 'aria-label': 'Find a design' }}
                sx={{ width: 240 }}
              />
              <span role="group" aria-label="Order">
                {ORDERS.map(([key, label]) => (
                  <TextButton key={key} aria-pressed={order === key} onClick={() => setOrder(key)}>
                    {label}
                  </TextButton>
                ))}
              </span>
              <span aria-live="polite">
                {shown.length === designs.length
                  ? counted(designs.length, 'design')
                  : `${shown.length} of ${counted(designs.length, 'design')}`}
              </span>
            </div>
            <ul className={styles.list} aria-label="Designs">
              {shown.map((design) => (
                <DesignRow
                  key={design.id}
                  design={design}
                  onRename={(name) => void run('The name was not changed', api.rename(design.id, name), refresh)}
                  onDuplicate={() =>
                    void run('No copy was made', api.create({ do: 'duplicate', of: design.id }), refresh)
                  }
                  onDelete={() =>
                    void run('It was not deleted', api.remove(design.id), () => {
                      setDeleted({ id: design.id, name: design.name });
                      refresh();
                    })
                  }
                />
              ))}
            </ul>
          </>
        )}
        <details className={styles.practice}>
          <summary>Exercises: networks that do not do yet what they should, and trees to work out by hand</summary>
          <ol className={styles.exercises} aria-label="Exercises">
            {EXERCISES.map(({ name, task }, i) => (
              <li key={name}>
                <Button
                  variant="outlined"
                  size="small"
                  onClick={() => void run('It was not made', api.create({ do: 'exercise', number: i + 1 }), goTo)}
                >
                  {name}
                </Button>
                <span>{task}</span>
              </li>
            ))}
          </ol>
          <p>Small networks, never twice the same: work a tree out by hand, then compare.</p>
          <PracticeChoice />
        </details>
      </main>
      <Snackbar
        open={deleted !== null}
        onClose={(_, reason) => reason === 'timeout' && setDeleted(null)}
        autoHideDuration={15_000}
        message={`Deleted “${deleted?.name.slice(0, 60) ?? ''}”`}
        action={
          deleted && (
            <Button
              color="inherit"
              onClick={() =>
                void run('It was not brought back', api.restore(deleted.id), () => {
                  setDeleted(null);
                  refresh();
                })
              }
            >
              Undo
            </Button>
          )
        }
      />
    </div>
  );
}

interface RowProps {
  readonly design: DesignSummary;
  readonly onRename: (name: string) => void;
  readonly onDuplicate: () => void;
  readonly onDelete: () => void;
}

function DesignRow({ design, onRename, onDuplicate, onDelete }: RowProps) {
  const [draft, setDraft] = useState<string | null>(null);
  const short = design.name.slice(0, 80);
  const [glance, row] = useGlance(design.id, design.revision);
  return (
    <li className={styles.item} ref={row}>
      <WholePageLink href={`/designs/${design.id}`} className={styles.picture} tabIndex={-1} aria-hidden="true">
        <Glimpse glance={glance} />
      </WholePageLink>
      {draft === null ? (
        <WholePageLink href={`/designs/${design.id}`} className={styles.name} title={design.name.slice(0, 500)}>
          {design.name.slice(0, 300)}
        </WholePageLink>
      ) : (
        <form
          className={styles.rename}
          onSubmit={(event) => {
            event.preventDefault();
            onRename(draft);
            setDraft(null);
          }}
        >
          <OutlinedInput
            autoFocus
            fullWidth
            value={draft}
            onChange={(event) => setDraft(event.target.value)}
            inputProps={{ 'aria-label': 'New name' }}
          />
          <Button type="submit" variant="contained" disabled={draft.trim() === ''}>
            Rename
          </Button>
          <Button onClick={() => setDraft(null)}>Cancel</Button>
        </form>
      )}
      <span className={styles.facts}>
        {counted(design.switches, 'switch', 'switches')}, {counted(design.links, 'link')}
        {glance?.findings != null &&
          `, ${glance.findings === 0 ? 'nothing found' : counted(glance.findings, 'finding')}`}
        , revision {design.revision}
        <span suppressHydrationWarning>
          , {new Date(design.updatedAt).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}
        </span>
      </span>
      <span className={styles.tools}>
        <TextButton does="edit" onClick={() => setDraft(design.name)} aria-label={`Rename ${short}`}>
          rename
        </TextButton>
        <TextButton does="edit" onClick={onDuplicate} aria-label={`Duplicate ${short}`}>
          duplicate
        </TextButton>
        <TextButton onClick={() => window.location.assign(api.exportPath(design.id))} aria-label={`Export ${short}`}>
          export
        </TextButton>
        <TextButton does="remove" onClick={onDelete} aria-label={`Delete ${short}`}>
          delete
        </TextButton>
      </span>
    </li>
  );
}
