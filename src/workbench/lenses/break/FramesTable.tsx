'use client';
/** BPDUs and LACPDUs on a link or at a port, every field named, beside what the port that they come to holds; to save as a capture. */
import type { GridColDef } from '@mui/x-data-grid';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { treeName, type SwitchId } from '../../../core/model/ids';
import type { FrameRow } from '../../../core/sim/report/frameRows';
import type { Design } from '../../../core/model/document';
import type { FrameScope } from '../../../workers/running';
import { TextButton } from '../../ui/TextButton';
import { Grid } from '../../ui/Grid';
import { saveFile } from '../../ui/saveFile';
import { timeText, useClock, useClockStore } from '../../state/clock';
import { useWorkbench } from '../../state/context';
import { switchesIn } from '../../state/selection';
import { counted } from '../../../core/base/words';
import styles from '../shared/clock.module.css';
import { NoRun } from './NoRun';

/** Most frames in the list; the capture has all. */
const MOST = 2000;

type Row = FrameRow & { readonly id: number; readonly time: string; readonly way: string; readonly inTree: string };

const COLUMNS: GridColDef<Row>[] = [
  { field: 'time', headerName: 'Sent at', width: 106 },
  { field: 'way', headerName: 'From, to', flex: 1, minWidth: 130 },
  { field: 'inTree', headerName: 'Tree', width: 80 },
  { field: 'kind', headerName: 'Kind', width: 72 },
  { field: 'says', headerName: 'Says', flex: 1.3, minWidth: 130 },
];

/** What a capture of a link or a port is called: `ridge-a 1 to ridge-b 1`, without signs that files cannot have. */
export function scopeName({ switches, links }: Design, scope: Exclude<FrameScope, null>): string {
  const end = (at: { readonly switch: string; readonly port: string }): string =>
    `${switches.find((sw) => sw.id === at.switch)?.name ?? at.switch} ${at.port}`;
  if (scope.kind === 'switches') {
    const [first, ...more] = scope.switches.map((id) => switches.find((sw) => sw.id === id)?.name ?? id);
    return fileName(more.length === 0 ? first! : `${first} and ${more.length} more`);
  }
  const link = scope.kind === 'link' ? links.find((each) => each.id === scope.link) : null;
  const name = scope.kind === 'port' ? end(scope) : link ? `${end(link.a)} to ${end(link.b)}` : scope.link;
  return fileName(name);
}

const fileName = (text: string): string => text.replace(/[\\/:*?"<>|\p{Cc}]/gu, '-').slice(0, 120);

export function FramesTable() {
  const player = useClock((clock) => clock.player);
  const runner = useClock((clock) => clock.runner);
  const selection = useWorkbench((state) => state.selection);
  const switches = useWorkbench((state) => switchesIn(state.selection).join('\n'));
  const shown = useWorkbench((state) => state.shownTrees);
  const design = useWorkbench((state) => state.design);
  const store = useClockStore();
  const scope = useMemo(
    (): FrameScope =>
      selection?.kind === 'link' || selection?.kind === 'port'
        ? selection
        : switches === ''
          ? null
          : { kind: 'switches', switches: switches.split('\n') as SwitchId[] },
    [selection, switches],
  );
  const [found, setFound] = useState<{ readonly rows: readonly FrameRow[]; readonly left: number } | null>(null);
  const [chosen, setChosen] = useState<number | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  useEffect(() => {
    let wanted = true;
    if (player)
      void runner.frames(scope, shown.length === 0 ? null : shown, MOST).then((answer) => {
        if (!wanted) return;
        setChosen(null);
        setFound(answer.ok ? answer.value : null);
        setFault(answer.ok ? null : answer.error);
      });
    return () => {
      wanted = false;
    };
  }, [player, runner, scope, shown]);
  const rows = useMemo(() => {
    const names = new Map(design.switches.map((sw) => [sw.id, sw.name ?? sw.id]));
    const end = (at: FrameRow['from']): string => `${names.get(at.switch) ?? at.switch} ${at.port}`;
    return (found?.rows ?? []).map((row, id): Row => ({
      ...row,
      id,
      time: timeText(row.t),
      way: `${end(row.from)}, ${row.to ? end(row.to) : 'a host'}`,
      inTree: row.tree === null ? '' : treeName(row.tree).replace('the common tree', 'common'),
    }));
  }, [found, design]);
  const open = useCallback(
    (row: Row) => {
      setChosen(row.id);
      store.getState().seek(row.t);
    },
    [store],
  );
  const picked = useMemo(() => new Set(chosen === null ? [] : [String(chosen)]), [chosen]);
  if (!player) return <NoRun />;
  const where =
    scope?.kind === 'link'
      ? 'on the selected link'
      : scope?.kind === 'port'
        ? 'at the selected port'
        : scope?.kind === 'switches'
          ? `of the ${scope.switches.length === 1 ? 'selected switch' : `${scope.switches.length} selected switches`}`
          : 'on all links; select a link, a port or switches for theirs';
  const save = async (of: FrameScope, name: string) => {
    const bytes = await runner.capture(of);
    if (bytes.ok) saveFile(name, 'application/octet-stream', bytes.value);
    else setFault(bytes.error);
  };
  const frame = chosen === null ? undefined : rows[chosen];
  return (
    <div className={styles.grid}>
      <div className={styles.line}>
        <span>
          {counted(rows.length + (found?.left ?? 0), 'frame')}: BPDUs of the trees shown and LACPDUs, {where}.
          {found && found.left > 0 && ` The first ${MOST} are listed.`}
        </span>
        {scope && (
          <TextButton onClick={() => void save(scope, `${scopeName(design, scope)}.pcapng`)}>
            save these as a capture, all trees
          </TextButton>
        )}
        <TextButton onClick={() => void save(null, 'run.pcapng')}>save everything as a capture</TextButton>
        {fault && (
          <span className={styles.fault} role="alert">
            {fault}
          </span>
        )}
      </div>
      <div className={styles.frames}>
        <Grid rows={rows} columns={COLUMNS} onOpen={open} chosen={picked} aria-label="Frames" />
        <div className={styles.fieldRoom}>
          {frame ? (
            <Fields row={frame} />
          ) : (
            <p className={styles.hint}>
              Open a row: its fields stand here, beside what the port that it comes to holds.
            </p>
          )}
        </div>
      </div>
    </div>
  );
}

function Fields({ row }: { readonly row: FrameRow }) {
  return (
    <table className={styles.fields} aria-label="Fields">
      <thead>
        <tr>
          <th>{row.tree === null ? 'LACPDU' : `${row.kind} BPDU`}</th>
          <th>says</th>
          <th>{row.tree === null ? '' : 'the port holds'}</th>
        </tr>
      </thead>
      <tbody>
        {row.says !== '' && (
          <tr>
            <th scope="row">Flags</th>
            <td colSpan={2}>{row.says}</td>
          </tr>
        )}
        {row.fields.map((field) => (
          <tr key={field.name} data-than={field.than ?? undefined}>
            <th scope="row">{field.name}</th>
            <td>{field.value}</td>
            <td>
              {field.held === null
                ? ''
                : field.than === 'same'
                  ? 'the same'
                  : `${field.held} (the BPDU’s is ${field.than})`}
            </td>
          </tr>
        ))}
        {row.fields.length === 0 && (
          <tr>
            <td colSpan={3}>A notification has no fields: it says that the topology has changed.</td>
          </tr>
        )}
      </tbody>
    </table>
  );
}
