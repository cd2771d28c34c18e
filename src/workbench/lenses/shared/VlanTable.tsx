'use client';
/** The list of VLANs: names and loads in place, ranges added and deleted, with what uses each. */
import Button from '@mui/material/Button';
import type { GridColDef, GridRenderCellParams } from '@mui/x-data-grid';
import { useCallback, useMemo, useState } from 'react';
import type { Command } from '../../../core/edit/commands';
import { isMultiple, isSingle, runsTrees, titleSchema, type Design } from '../../../core/model/document';
import type { SwitchId } from '../../../core/model/ids';
import { VlanSet, vlansText } from '../../../core/model/vlanSet';
import { vlanUses, vlanUsesText } from '../../../core/model/vlanUses';
import { fail, ok, type Result } from '../../../core/base/result';
import { TextButton } from '../../ui/TextButton';
import { useFollowing, useWorkbench, useWorkbenchStore } from '../../state/context';
import { counted } from '../../../core/base/words';
import { Grid } from '../../ui/Grid';
import { useOfSelection } from './ofSelection';
import styles from '../../ui/table.module.css';

interface VlanFields {
  readonly id: number;
  readonly name: string;
  readonly load: string;
  readonly uses: string;
}

interface VlanRow extends VlanFields {
  /** Where it is used. */
  readonly switches: readonly SwitchId[];
}
const switchesOfVlan = ({ switches }: VlanRow): readonly SwitchId[] => switches;

export const vlanRows = (design: Design): VlanRow[] =>
  design.vlans.map((vlan) => {
    const uses = vlanUses(design, vlan.id);
    return {
      id: vlan.id,
      name: vlan.name ?? '',
      load: vlan.load === undefined ? '' : String(vlan.load),
      uses: vlanUsesText(uses) || 'nothing',
      switches: uses.switches,
    };
  });

/** A load as typed: nothing, or Mb/s. */
export function readLoad(text: string): Result<number | null, string> {
  if (text.trim() === '') return ok(null);
  const value = Number(text.replace(',', '.'));
  return Number.isFinite(value) && value >= 0 ? ok(value) : fail('A load is a number of Mb/s from 0 up, or nothing.');
}

/** The command that a changed row means; the error is a sentence. */
export function rowCommand(before: VlanFields, after: VlanFields): Result<Command | null, string> {
  const load = readLoad(after.load);
  if (!load.ok) return load;
  const name = after.name.trim();
  if (name !== '' && !titleSchema.safeParse(name).success)
    return fail('A name is one line of at most 20 000 characters.');
  if (name === before.name && after.load === before.load) return ok(null);
  return ok({
    do: 'set-vlan',
    vlan: before.id,
    ...(name === before.name ? {} : { name: name || null }),
    ...(after.load === before.load ? {} : { load: load.value }),
  });
}

/** VLAN IDs as typed in a field. */
export function readVlans(text: string): Result<number[], string> {
  if (text.trim() === '') return fail('Which VLANs? Such as 15 or 60-79.');
  const parsed = VlanSet.parse(text);
  if (!parsed.ok)
    return fail(`${parsed.error.found} at character ${parsed.error.at + 1}; write ${parsed.error.allowed}.`);
  return ok(
    parsed.value.ranges().flatMap(([first, last]) => Array.from({ length: last - first + 1 }, (_, i) => first + i)),
  );
}

/** Which VLANs share a tree; null where each has its own. */
export function sharingText(design: Design): string | null {
  const running = design.switches.filter(runsTrees);
  if (running.length === 0 || design.vlans.length === 0) return null;
  if (running.every(isSingle)) return 'All VLANs share one tree here: priorities and costs hold for all of them.';
  if (running.every(isMultiple))
    return 'VLANs of one instance share its tree; those that no instance has share the IST. The Group view assigns them.';
  return null;
}

export function VlanTable() {
  const store = useWorkbenchStore();
  const design = useFollowing((state) => state.design);
  const all = useMemo(() => vlanRows(design), [design]);
  const { rows, choice } = useOfSelection(all, switchesOfVlan);
  const [doomed, setDoomed] = useState<readonly number[] | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const update = useCallback(
    (after: VlanRow, before: VlanRow): VlanRow => {
      const command = rowCommand(before, after);
      const refused = !command.ok ? command.error : command.value ? store.getState().act(command.value) : null;
      if (refused !== null) throw new Error(refused); // the cell stays open with what was typed
      setFault(null);
      return after;
    },
    [store],
  );
  const columns = useMemo(
    (): GridColDef<VlanRow>[] => [
      { field: 'id', headerName: 'VLAN', type: 'number', width: 80 },
      { field: 'name', headerName: 'Name', width: 230, editable: true },
      {
        field: 'load',
        headerName: 'Load, Mb/s',
        width: 110,
        editable: true,
        align: 'right',
        headerAlign: 'right',
        description: 'busy-hour load',
        sortComparator: (a: string, b: string) => Number(a) - Number(b),
      },
      { field: 'uses', headerName: 'Used by', flex: 1, minWidth: 260 },
      {
        field: 'remove',
        headerName: 'Actions',
        width: 80,
        sortable: false,
        renderCell: ({ row }: GridRenderCellParams<VlanRow>) => (
          <TextButton
            does="remove"
            onClick={(event) => {
              event.stopPropagation();
              setDoomed([row.id]);
            }}
            aria-label={`delete VLAN ${row.id}`}
          >
            delete
          </TextButton>
        ),
      },
    ],
    [],
  );
  const openTree = useCallback(
    (row: VlanRow) => {
      const { solution, showTree } = store.getState();
      const tree = solution?.trees.find((each) => each.id === `vlan:${row.id}`);
      if (tree) showTree(tree.id, 'alone');
    },
    [store],
  );
  return (
    <>
      <AddVlans design={design} onDelete={setDoomed} />
      {sharingText(design) && <p className={styles.said}>{sharingText(design)}</p>}
      {fault && (
        <p className={styles.fault} role="alert">
          {fault}
        </p>
      )}
      {doomed && <Doomed design={design} vids={doomed} close={() => setDoomed(null)} />}
      {choice && <p className={styles.said}>{choice}</p>}
      {all.length === 0 ? (
        <p className={styles.empty}>No VLANs are listed yet; VLAN 1 always exists. Add one, or several as a range.</p>
      ) : (
        <Grid
          aria-label="VLANs"
          rows={rows}
          columns={columns}
          onOpen={openTree}
          processRowUpdate={update}
          onProcessRowUpdateError={(error: Error) => setFault(error.message)}
        />
      )}
    </>
  );
}

/** One line that adds or deletes VLANs, single or as ranges. */
function AddVlans({
  design,
  onDelete,
}: {
  readonly design: Design;
  readonly onDelete: (vids: readonly number[]) => void;
}) {
  const act = useWorkbench((state) => state.act);
  const [text, setText] = useState('');
  const [name, setName] = useState('');
  const [load, setLoad] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const add = () => {
    const [vids, mbits] = [readVlans(text), readLoad(load)];
    if (!vids.ok) return setFault(vids.error);
    if (!mbits.ok) return setFault(mbits.error);
    const listed = new Set(design.vlans.map((vlan) => vlan.id));
    const fresh = vids.value.filter((vid) => !listed.has(vid));
    if (fresh.length === 0) return setFault('These are in the list already.');
    const refused = act(
      ...fresh.map((id): Command => ({
        do: 'add-vlan',
        vlan: {
          id,
          ...(name.trim() ? { name: name.trim() } : {}),
          ...(mbits.value === null ? {} : { load: mbits.value }),
        },
      })),
    );
    setFault(refused);
    if (refused === null) [setText, setName, setLoad].forEach((clear) => clear(''));
  };
  const remove = () => {
    const vids = readVlans(text);
    if (!vids.ok) return setFault(vids.error);
    const listed = new Set(design.vlans.map((vlan) => vlan.id));
    const found = vids.value.filter((vid) => listed.has(vid));
    setFault(found.length === 0 ? 'None of these is in the list.' : null);
    if (found.length > 0) onDelete(found);
  };
  const field = (label: string, value: string, set: (value: string) => void, width: number, placeholder: string) => (
    <input
      className={styles.input}
      style={{ width }}
      value={value}
      placeholder={placeholder}
      aria-label={label}
      aria-invalid={fault !== null}
      onChange={(event) => {
        set(event.target.value);
        setFault(null);
      }}
      onKeyDown={(event) => event.key === 'Enter' && add()}
    />
  );
  return (
    <div className={styles.filter}>
      {field('VLAN IDs to add or delete', text, setText, 150, 'IDs, such as 60-79')}
      {field('Name of the new VLANs', name, setName, 170, 'name, if any')}
      {field('Load of each new VLAN in Mb/s', load, setLoad, 100, 'load, Mb/s')}
      <Button variant="outlined" onClick={add}>
        Add
      </Button>
      <Button onClick={remove}>Delete</Button>
      {fault ? (
        <span className={styles.fault} role="alert">
          {fault}
        </span>
      ) : (
        <span>{counted(design.vlans.length, 'VLAN')}; double-click a name or load to change it</span>
      )}
    </div>
  );
}

/** Asks before VLANs go that something uses. */
function Doomed({
  design,
  vids,
  close,
}: {
  readonly design: Design;
  readonly vids: readonly number[];
  readonly close: () => void;
}) {
  const act = useWorkbench((state) => state.act);
  const used = vids.flatMap((vid) => {
    const text = vlanUsesText(vlanUses(design, vid));
    return text === '' ? [] : [`VLAN ${vid}: ${text}`];
  });
  const go = () => {
    act(...vids.map((vlan): Command => ({ do: 'remove-vlan', vlan })));
    close();
  };
  return (
    <div className={styles.ask} role="alertdialog" aria-label={`Delete VLAN ${vlansText(vids)}?`}>
      <p>
        <b>Delete VLAN {vlansText(vids)}?</b>{' '}
        {used.length > 0
          ? 'It goes with its name, load and the settings of its tree; hosts and ports keep their VLAN.'
          : 'Nothing uses it.'}
      </p>
      {used.slice(0, 6).map((text) => (
        <p key={text}>{text}</p>
      ))}
      {used.length > 6 && <p>and {used.length - 6} more in use</p>}
      <Button variant="contained" color="error" onClick={go} autoFocus>
        Delete
      </Button>{' '}
      <Button onClick={close}>Keep</Button>
    </div>
  );
}
