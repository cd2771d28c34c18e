'use client';
/** Reads what switches report: CSV files, or what lldpctl -f json printed on each of them. */
import Button from '@mui/material/Button';
import { useEffect, useRef, useState } from 'react';
import type { Observed } from '../../../core/model/document';
import type { ObservedImport } from '../../../core/exchange/neighbours/format';
import { FORMATS, formatOf } from '../../../core/exchange/neighbours/formats';
import { fail, type Result } from '../../../core/base/result';
import { useWorkbench } from '../../state/context';
import { readText } from '../../ui/readText';
import { upper } from '../../ui/words/units';
import { counted } from '../../../core/base/words';
import styles from '../../ui/table.module.css';

/** A file as it was read; JSON does not say on which switch it was printed. */
export interface ReadFile {
  readonly name: string;
  readonly text: string;
  /** Null for a table, which names its switches itself. */
  readonly seenOn: string | null;
}

/** The switch whose name a file's name holds, the longest such name. */
export function switchInName(fileName: string, names: readonly string[]): string {
  const lower = fileName.toLowerCase();
  return [...names].filter((name) => lower.includes(name.toLowerCase())).sort((a, b) => b.length - a.length)[0] ?? '';
}

/** What was read in each file, as it comes: read beside the page, each file once. Null while it is read. */
function useReads(files: readonly ReadFile[]): (Result<ObservedImport, string> | null)[] {
  const read = useWorkbench((state) => state.readObserved);
  const [found, setFound] = useState<ReadonlyMap<string, Result<ObservedImport, string>>>(new Map());
  const asked = useRef(new Set<string>());
  useEffect(() => {
    for (const { text, seenOn } of files) {
      const key = keyOf({ text, seenOn });
      if (seenOn?.trim() === '' || asked.current.has(key)) continue;
      asked.current.add(key);
      void read(text, seenOn?.trim() ?? null).then((result) => setFound((before) => new Map(before).set(key, result)));
    }
  }, [files, read]);
  return files.map((file) =>
    file.seenOn?.trim() === ''
      ? fail('On which switch was this printed? lldpctl does not say.')
      : (found.get(keyOf(file)) ?? null),
  );
}

const keyOf = ({ text, seenOn }: Pick<ReadFile, 'text' | 'seenOn'>): string => `${seenOn?.trim() ?? ''}\n${text}`;

export function ImportNeighbours({ close }: { readonly close: () => void }) {
  const design = useWorkbench((state) => state.design);
  const act = useWorkbench((state) => state.act);
  const names = design.switches.map((sw) => sw.name ?? sw.id);
  const [files, setFiles] = useState<readonly ReadFile[]>([]);
  const [pasted, setPasted] = useState('');
  const [troubles, setTroubles] = useState<readonly string[]>([]);
  const load = async (chosen: readonly File[]) => {
    const read: ReadFile[] = [];
    const wrong: string[] = [];
    for (const file of chosen) {
      const text = await readText(file);
      if (!text.ok) wrong.push(`${file.name}: ${text.error}`);
      else
        read.push({
          name: file.name,
          text: text.value,
          seenOn: formatOf(text.value).namesSwitch ? null : switchInName(file.name, names),
        });
    }
    setTroubles(wrong);
    setFiles([...files, ...read]);
  };
  const [pastedOn, setPastedOn] = useState('');
  const all: readonly ReadFile[] =
    pasted.trim() === ''
      ? files
      : [...files, { name: 'pasted text', text: pasted, seenOn: formatOf(pasted).namesSwitch ? null : pastedOn }];
  const reads = useReads(all);
  const results = all.map((file, i) => ({ file, result: reads[i] ?? null }));
  const observed = results.flatMap(({ result }) => (result?.ok ? result.value.observed : []));
  const ready = results.length > 0 && results.every(({ result }) => result?.ok) && observed.length > 0;
  const take = () => {
    const refused = act({ do: 'set-observed', observed: mergedObserved(design.observed, observed) });
    if (refused === null) close();
    else setTroubles([refused]);
  };
  const where = (file: ReadFile, i: number) =>
    file.seenOn !== null && (
      <input
        className={styles.input}
        style={{ width: 150 }}
        list="switch-names"
        value={file.seenOn}
        placeholder="printed on which switch"
        aria-label={`Switch on which ${file.name} was printed`}
        onChange={(event) =>
          i < files.length
            ? setFiles(files.map((each, j) => (j === i ? { ...each, seenOn: event.target.value } : each)))
            : setPastedOn(event.target.value)
        }
      />
    );
  return (
    <div className={styles.importer}>
      <datalist id="switch-names">
        {names.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
      <div>
        <p>
          {`${upper(
            FORMATS.map(({ name }) => name)
              .reverse()
              .join(', or '),
          )}; several files at once are fine.`}
        </p>
        <p className={styles.filter}>
          <Button variant="outlined" component="label">
            Choose files
            <input
              type="file"
              multiple
              hidden
              accept=".csv,.txt,.tsv,.json"
              aria-label="Files of reported neighbours"
              onChange={(event) => {
                void load([...(event.target.files ?? [])]);
                event.target.value = '';
              }}
            />
          </Button>
          <Button variant="contained" disabled={!ready} onClick={take}>
            Compare with the drawing
          </Button>
          <Button onClick={close}>Cancel</Button>
        </p>
        <textarea
          className={styles.input}
          rows={3}
          value={pasted}
          placeholder="or paste it here"
          aria-label="Reported neighbours as text"
          spellCheck={false}
          onChange={(event) => setPasted(event.target.value)}
        />
      </div>
      <ul className={styles.reads} aria-label="What was read" aria-live="polite">
        {troubles.map((trouble) => (
          <li key={trouble} className={styles.fault} role="alert">
            {trouble}
          </li>
        ))}
        {results.map(({ file, result }, i) => (
          <li key={`${i} ${file.name}`}>
            <b>{file.name}</b> {where(file, i)}
            {!result ? (
              <p>Reading.</p>
            ) : result.ok ? (
              <>
                {' '}
                {counted(result.value.observed.length, 'neighbour')} from{' '}
                {counted(new Set(result.value.observed.map((row) => row.switch)).size, 'switch', 'switches')}
                {result.value.skipped.slice(0, 4).map((line) => (
                  <p key={line} className={styles.fault}>
                    {line}
                  </p>
                ))}
                {result.value.skipped.length > 4 && (
                  <p className={styles.fault}>and {result.value.skipped.length - 4} more lines that cannot be used</p>
                )}
              </>
            ) : (
              <p className={styles.fault} role="alert">
                {result.error}
              </p>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}

/** What switches reported now, with what others reported before. */
export function mergedObserved(before: readonly Observed[], now: readonly Observed[]): Observed[] {
  const told = new Set(now.map((row) => row.switch.toLowerCase()));
  return [...before.filter((row) => !told.has(row.switch.toLowerCase())), ...now];
}
