'use client';
/** What each port is plugged into, as drawn and as the switches report it. */
import Button from '@mui/material/Button';
import type { SwitchId } from '../../../core/model/ids';
import type { GridColDef, GridRenderCellParams } from '@mui/x-data-grid';
import { useCallback, useMemo, useState } from 'react';
import { type Design, carriageText } from '../../../core/model/document';
import { designedCsv } from '../../../core/exchange/neighbours/table';
import { neighboursOf, type Neighbour } from '../../../core/analysis/neighbours/neighbours';
import { fileStemOf } from '../../../core/model/derive/write';
import { TextButton } from '../../ui/TextButton';
import { useFollowing, useWorkbench, useWorkbenchStore } from '../../state/context';
import { itemsOf, selectionOf, type Item } from '../../state/selection';
import { withPlaces } from '../../map/places';
import { speedText } from '../../ui/words/units';
import { counted } from '../../../core/base/words';
import { FilterField, useFilter } from '../../ui/FilterField';
import { useOfSelection } from '../shared/ofSelection';
import { Grid } from '../../ui/Grid';
import { ImportNeighbours } from './ImportNeighbours';
import { saveFile } from '../../ui/saveFile';
import styles from '../../ui/table.module.css';

interface NeighbourRow {
  readonly id: string;
  readonly switch: string;
  readonly port: string;
  readonly drawn: string;
  readonly observed: string;
  readonly verdict: string;
  readonly speed: string;
  readonly carries: string;
  readonly neighbour: Neighbour;
}

/** One row a port, and one for each port seen that the design does not have. */
export function neighbourRows(design: Design): NeighbourRow[] {
  const ports = new Map(
    design.switches.flatMap((sw) => sw.ports.map((port) => [`${sw.id}\n${port.id}`, port] as const)),
  );
  return neighboursOf(design).map((neighbour, i): NeighbourRow => {
    const port = neighbour.at && ports.get(`${neighbour.at.switch}\n${neighbour.at.port}`);
    return {
      id: neighbour.at ? `${neighbour.at.switch}\n${neighbour.at.port}` : `seen ${i}`,
      switch: neighbour.switchName,
      port: neighbour.portName,
      drawn: neighbour.drawn ? (neighbour.drawn.host ? `host ${neighbour.drawn.text}` : neighbour.drawn.text) : '',
      observed: neighbour.observedText,
      verdict: neighbour.verdict === 'not observed' ? '' : neighbour.verdict,
      speed: port ? (port.up ? speedText(port.speed) : 'set down') : '',
      carries: port ? carriageText(port.vlans) : '',
      neighbour,
    };
  });
}

const itemOf = ({ neighbour: { at } }: NeighbourRow): Item | null =>
  at && { kind: 'port', switch: at.switch, port: at.port };
const switchesOfRow = ({ neighbour: { at } }: NeighbourRow): readonly SwitchId[] => (at ? [at.switch] : []);
const numeric = (a: string, b: string) => a.localeCompare(b, 'en', { numeric: true });

export function NeighbourTable() {
  const store = useWorkbenchStore();
  const design = useFollowing((state) => state.design);
  const selection = useWorkbench((state) => state.selection);
  const [importing, setImporting] = useState(false);
  const [differing, setDiffering] = useState(false);
  const [refused, setRefused] = useState<string | null>(null);
  const all = useMemo(() => neighbourRows(design), [design]);
  const differs = useMemo(() => all.filter((row) => row.verdict !== '' && row.verdict !== 'as drawn'), [all]);
  // What differs comes first.
  const ordered = useMemo(() => {
    const first = new Set(differs);
    return [...differs, ...all.filter((row) => !first.has(row))];
  }, [all, differs]);
  const { rows: wanted, choice } = useOfSelection(differing ? differs : ordered, switchesOfRow);
  const filter = useFilter(wanted);
  const open = useCallback(
    (row: NeighbourRow, how: 'alone' | 'more') => {
      const item = itemOf(row);
      if (item && how === 'more') store.getState().pick(item, how);
      else if (item) store.getState().goTo(item);
    },
    [store],
  );
  const reported = design.observed.length > 0;
  const columns = useMemo(
    (): GridColDef<NeighbourRow>[] => [
      { field: 'switch', headerName: 'Switch', width: 120 },
      { field: 'port', headerName: 'Port', width: 64, sortComparator: numeric },
      { field: 'drawn', headerName: 'Drawn to', width: 180 },
      ...(reported
        ? ([
            { field: 'observed', headerName: 'Reported', width: 170 },
            { field: 'verdict', headerName: 'Verdict', width: 125 },
            {
              field: 'take',
              headerName: 'Actions',
              width: 170,
              sortable: false,
              renderCell: ({ row: { neighbour } }: GridRenderCellParams<NeighbourRow>) =>
                neighbour.takeOver && (
                  <TextButton
                    does="edit"
                    onClick={(event) => {
                      event.stopPropagation();
                      const now = store.getState();
                      setRefused(now.act(...withPlaces(now.design, neighbour.takeOver!.commands)));
                    }}
                    title="take what was reported over into the design"
                  >
                    {neighbour.takeOver.label}
                  </TextButton>
                ),
            },
          ] satisfies GridColDef<NeighbourRow>[])
        : []),
      { field: 'speed', headerName: 'Speed', width: 90 },
      { field: 'carries', headerName: 'Carries', flex: 1, minWidth: 180 },
    ],
    [store, reported],
  );
  const chosen = useMemo(
    () => new Set(itemsOf(selection).flatMap((item) => (item.kind === 'port' ? [`${item.switch}\n${item.port}`] : []))),
    [selection],
  );
  if (importing) return <ImportNeighbours close={() => setImporting(false)} />;
  const csv = () => saveFile(`${fileStemOf(design)}-neighbours.csv`, 'text/csv', designedCsv(design));
  return (
    <>
      <FilterField
        {...filter}
        what="ports"
        example="ridge other"
        onSelect={() => store.getState().select(selectionOf(filter.rows.flatMap((row) => itemOf(row) ?? [])))}
      >
        {design.observed.length > 0 && (
          <>
            <label className={styles.tick}>
              <input type="checkbox" checked={differing} onChange={(event) => setDiffering(event.target.checked)} />{' '}
              {counted(differs.length, 'difference')} only
            </label>
            <TextButton does="remove" onClick={() => store.getState().act({ do: 'set-observed', observed: [] })}>
              forget what was reported
            </TextButton>
          </>
        )}
        <Button variant="outlined" onClick={() => setImporting(true)}>
          Import reported neighbours
        </Button>
        <Button onClick={csv} disabled={all.length === 0}>
          Export as CSV
        </Button>
        {choice}
      </FilterField>
      {refused && (
        <p className={styles.fault} role="alert">
          {refused}
        </p>
      )}
      {all.length === 0 ? (
        <p className={styles.empty}>
          No ports yet. Cable the first switches, or import what the switches report: unknown ones can be taken over row
          by row.
        </p>
      ) : (
        <Grid
          aria-label="Neighbours: what each port is plugged into"
          rows={filter.rows}
          columns={columns}
          onOpen={open}
          chosen={chosen}
        />
      )}
    </>
  );
}
