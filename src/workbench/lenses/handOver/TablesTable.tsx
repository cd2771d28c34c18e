'use client';
/** The design as tables, saved as CSV or as a spreadsheet; and tables read back, as a change that is looked at before it is taken. */
import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import { sentences } from '../../../core/analysis/plans/judge';
import type { Plan } from '../../../core/analysis/plans/plan';
import { counted } from '../../../core/base/words';
import { csvTables, csvText, sheetsIn, spreadsheetName } from '../../../core/exchange/tables/files';
import { cellFaultText, readTables, type ReadBack, type Sheet } from '../../../core/exchange/tables/readBack';
import { tablesOf } from '../../../core/exchange/tables/tables';
import { MAX_FILE, tooLarge } from '../../../core/exchange/text';
import { fileStemOf } from '../../../core/model/derive/write';
import type { Design } from '../../../core/model/document';
import { FileButton } from '../../ui/FileButton';
import { saveAll } from '../../ui/saveAll';
import { saveFile } from '../../ui/saveFile';
import { TextButton } from '../../ui/TextButton';
import styles from '../../ui/table.module.css';
import { PlanSteps } from '../shared/plan/PlanSteps';
import { usePresent } from '../shared/plan/usePresent';
import room from './handOver.module.css';

const CSV_TYPE = 'text/csv';

export function TablesTable() {
  const { design } = usePresent();
  const tables = useMemo(() => tablesOf(design), [design]);
  const [sheets, setSheets] = useState<readonly Sheet[]>([]);
  const [troubles, setTroubles] = useState<readonly string[]>([]);
  const read = useMemo(() => (sheets.length === 0 ? null : readTables(design, sheets)), [design, sheets]);
  const load = async (files: readonly File[]) => {
    const [found, wrong]: [Sheet[], string[]] = [[], []];
    for (const file of files) {
      const { name, size } = file;
      const there = size > MAX_FILE ? null : await sheetsIn(name, new Uint8Array(await file.arrayBuffer()));
      if (!there) wrong.push(`${name}: ${tooLarge(size)}`);
      else if (there.ok) found.push(...there.value);
      else wrong.push(`${name}: ${there.error}`);
    }
    setTroubles(wrong);
    setSheets(found);
  };
  const saveSpreadsheet = async () => {
    const { writeSpreadsheet, XLSX_TYPE } = await import('../../../core/exchange/tables/spreadsheet');
    saveFile(spreadsheetName(design), XLSX_TYPE, await writeSpreadsheet(tables));
  };
  const stem = fileStemOf(design);
  return (
    <>
      <div className={styles.filter}>
        <Button size="small" variant="outlined" onClick={() => void saveSpreadsheet()}>
          Save a spreadsheet
        </Button>
        <Button size="small" variant="outlined" onClick={() => saveAll(`${stem}-tables`, csvTables(design))}>
          Save all as CSV
        </Button>
        <FileButton label="Tables to read back" accept=".csv,.xlsx" multiple read={(files) => void load(files)}>
          Read tables back
        </FileButton>
        <span>
          Change cells in any program for tables and read them back: what differs is shown before it is taken.
        </span>
      </div>
      <div className={room.room}>
        <section className={room.left} aria-label="Tables">
          <ul className={room.tables}>
            {tables.map((table) => (
              <li key={table.key}>
                <b>{table.name}</b> {counted(table.rows.length, 'line')}{' '}
                <TextButton
                  aria-label={`save as CSV, ${table.name}`}
                  onClick={() => saveFile(`${stem}-${table.key}.csv`, CSV_TYPE, csvText(table))}
                >
                  save as CSV
                </TextButton>
              </li>
            ))}
          </ul>
        </section>
        <section className={room.found} aria-label="What was read" aria-live="polite">
          {troubles.map((trouble) => (
            <p key={trouble} className={styles.fault} role="alert">
              {trouble}
            </p>
          ))}
          {read && <Read design={design} read={read} close={() => setSheets([])} />}
        </section>
      </div>
    </>
  );
}

function Read({
  design,
  read: { commands, design: changed, faults, passed },
  close,
}: {
  readonly design: Design;
  readonly read: ReadBack;
  readonly close: () => void;
}) {
  const plan = useMemo(
    (): Plan => ({
      preparation: [],
      steps: [{ key: 'tables', switch: null, does: sentences(design, changed), why: null, changes: commands }],
    }),
    [design, changed, commands],
  );
  return (
    <>
      {passed.map((sentence) => (
        <p key={sentence}>{sentence}</p>
      ))}
      {faults.length > 0 ? (
        <>
          <p>
            <b>{counted(faults.length, 'cell')} that cannot be read; nothing is taken.</b>{' '}
            <TextButton does="plain" onClick={close}>
              close
            </TextButton>
          </p>
          <ul>
            {faults.map((fault) => (
              <li key={cellFaultText(fault)} className={styles.fault}>
                {cellFaultText(fault)}
              </li>
            ))}
          </ul>
        </>
      ) : commands.length === 0 ? (
        <p>
          Nothing in them differs from the design.{' '}
          <TextButton does="plain" onClick={close}>
            close
          </TextButton>
        </p>
      ) : (
        <PlanSteps design={design} plan={plan} label="What the tables change" judged={null} takes />
      )}
    </>
  );
}
