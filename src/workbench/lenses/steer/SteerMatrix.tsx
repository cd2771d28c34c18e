'use client';
/** Costs and port priorities: every cabled port by every group of alike trees, in place and for a selection. */
import Button from '@mui/material/Button';
import type { GridColDef } from '@mui/x-data-grid';
import { useCallback, useMemo, useState } from 'react';
import { methodOf } from '../../../core/model/costMethod';
import type { Command } from '../../../core/edit/commands';
import { treeVlan, type BridgePortId, type SwitchId, type TreeId } from '../../../core/model/ids';
import { fail, ok, type Result } from '../../../core/base/result';
import { steerGroups, type SteerGroup, type SteerSetting } from '../../../core/analysis/steering/costMatrix';
import { costCommand } from '../../../core/analysis/steering/whatIf';
import { settingKey } from '../../../core/topology/bridgeId';
import type { Network } from '../../../core/topology/network';
import { partOf } from '../../../core/topology/trees';
import type { Solution } from '../../../core/tree/settled';
import { TextButton } from '../../ui/TextButton';
import * as read from '../../ui/read';
import { useFollowing, useWorkbench, useWorkbenchStore } from '../../state/context';
import { farEndsOf } from '../../state/farEnds';
import { itemsOf, type Item } from '../../state/selection';
import { groupText } from '../../ui/words/units';
import { counted } from '../../../core/base/words';
import { csvOf } from '../../ui/csv';
import { FilterField, useFilter } from '../../ui/FilterField';
import { useOfSelection } from '../shared/ofSelection';
import { Grid } from '../../ui/Grid';
import { groupsOf } from '../shared/groups';
import { isEditable, treeColumns, TreesField, useCellEdit, useOpenRow, type TreeRow } from '../shared/treeColumns';
import styles from '../../ui/table.module.css';

/** A row: the port, and under `g0`, `g1`, … its value in each group of trees as text. */
interface SteerRow extends TreeRow {
  readonly id: string;
  readonly switch: string;
  readonly port: string;
  readonly to: string;
  readonly at: PortAt;
}
interface PortAt {
  readonly switch: SwitchId;
  readonly port: BridgePortId;
}

/** One row for each port with a cable to another switch. */
export function steerRows({ network }: Pick<Solution, 'network'>, groups: readonly SteerGroup[]): SteerRow[] {
  const farEnd = farEndsOf(network.design);
  return network.ports.flatMap((port, p): SteerRow[] => {
    if (network.far[p]! < 0) return [];
    const sw = network.switches[network.owner[p]!]!;
    const values = Object.fromEntries(
      groups.map((group, g) => [`g${g}`, group.cells[p] ? String(group.cells[p].value) : '']),
    );
    return [
      {
        id: `${sw.id}\n${port.id}`,
        switch: sw.name ?? sw.id,
        port: port.id,
        to: farEnd(sw.id, port.id)?.text ?? '',
        at: { switch: sw.id, port: port.id },
        ...values,
      },
    ];
  });
}

/** Commands that set a value as typed on ports in trees; empty takes the trees' own away. The error is a sentence. */
export function steerCommands(
  network: Network,
  setting: SteerSetting,
  trees: readonly TreeId[],
  ports: readonly PortAt[],
  text: string,
): Result<Command[], string> {
  const commands: Command[] = [];
  for (const at of ports) {
    const sw = network.switches[network.switchIndex.get(at.switch) ?? -1];
    if (!sw) continue;
    const value = setting === 'cost' ? read.pathCost(methodOf(network.design, sw))(text) : read.portPriority(text);
    if (!value.ok)
      return fail(
        `${value.error.message}${value.error.suggestions ? ` Nearest: ${value.error.suggestions.join(' and ')}.` : ''}`,
      );
    // A standard bridge has one tree, and keeps what is set for it under `cst`.
    const own = trees.filter((tree) => partOf(sw, tree) === 'bridge');
    const p = network.portIndexOf(at.switch, at.port);
    if (setting === 'cost') commands.push(...unlike(own.map((tree) => costCommand(network, tree, p, value.value))));
    else
      commands.push(
        ...[...new Set(own.map((tree) => settingKey(tree, sw.dialect)))].map((tree): Command => ({
          do: 'set-port-priority',
          ...at,
          tree,
          priority: value.value!,
        })),
      );
  }
  return ok(commands);
}

const unlike = (commands: readonly Command[]): Command[] => [
  ...new Map(commands.map((command) => [JSON.stringify(command), command])).values(),
];

const switchesOfRow = ({ at }: SteerRow): readonly SwitchId[] => [at.switch];
const WORDS: Readonly<Record<SteerSetting, string>> = { cost: 'path cost', priority: 'port priority' };

export function SteerMatrix() {
  const store = useWorkbenchStore();
  const solution = useFollowing((state) => state.solution);
  const selection = useWorkbench((state) => state.selection);
  const [setting, setSetting] = useState<SteerSetting>('cost');
  const [trees, setTrees] = useState('');
  const [typed, setTyped] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const all = useMemo(() => (solution ? steerGroups(solution, setting) : []), [solution, setting]);
  const { groups, fault: treesFault } = useMemo(() => groupsOf(all, trees), [all, trees]);
  const { rows: wanted, choice } = useOfSelection(
    useMemo(() => (solution ? steerRows(solution, groups) : []), [solution, groups]),
    switchesOfRow,
  );
  const filter = useFilter(wanted);
  const ports = useMemo(() => portsIn(solution, itemsOf(selection)), [solution, selection]);
  const chosen = useMemo(() => new Set(ports.map((at) => `${at.switch}\n${at.port}`)), [ports]);

  const put = useCallback(
    (of: readonly TreeId[], on: readonly PortAt[], text: string): string | null => {
      const { solution: present, act } = store.getState();
      if (!present) return null;
      const commands = steerCommands(present.network, setting, of, on, text);
      return commands.ok ? act(...commands.value) : commands.error;
    },
    [store, setting],
  );
  const putRow = useCallback(
    (of: readonly TreeId[], row: SteerRow, text: string): string | null => {
      const refused = put(of, [row.at], text);
      if (refused === null) setFault(null);
      return refused;
    },
    [put],
  );
  const update = useCellEdit(groups, putRow);
  const columns = useMemo(
    (): GridColDef<SteerRow>[] => [
      { field: 'switch', headerName: 'Switch', width: 130 },
      { field: 'port', headerName: 'Port', width: 64 },
      { field: 'to', headerName: 'To', width: 170 },
      ...treeColumns<SteerRow, SteerGroup>(groups, `${WORDS[setting]} in `, (group, row) => {
        const cell = group.cells[solution?.network.portIndexOf(row.at.switch, row.at.port) ?? -1];
        return cell ? (
          <span className={cell.own ? styles.own : styles.soft}>{groupText(cell.value)}</span>
        ) : (
          <span className={styles.soft}>–</span>
        );
      }),
    ],
    [groups, setting, solution],
  );
  const open = useOpenRow(itemOf);
  const of = groups.flatMap((group) => group.trees);
  const setAll = () => setFault(put(of, ports, typed));
  if (filter.total === 0)
    return <p className={styles.empty}>No cable joins two switches yet: there is nothing to steer.</p>;
  return (
    <>
      <FilterField
        {...filter}
        csv={() => csvOf(columns, filter.rows)}
        what="ports"
        example="ridge dome"
        onSelect={() => store.getState().select({ kind: 'several', items: filter.rows.map(itemOf) })}
      >
        {(['cost', 'priority'] as const).map((each) => (
          <TextButton key={each} aria-pressed={setting === each} onClick={() => setSetting(each)}>
            {each === 'cost' ? 'costs' : 'port priorities'}
          </TextButton>
        ))}
        {all.some((group) => group.trees.some((tree) => treeVlan(tree) !== null)) && (
          <TreesField text={trees} fault={treesFault} set={setTrees} />
        )}
        <input
          className={styles.input}
          style={{ width: 96 }}
          value={typed}
          placeholder={setting}
          aria-label={`New ${WORDS[setting]} of the selected ports in these trees`}
          onChange={(event) => {
            setTyped(event.target.value);
            setFault(null);
          }}
          onKeyDown={(event) => event.key === 'Enter' && ports.length > 0 && setAll()}
        />
        <Button variant="outlined" disabled={ports.length === 0} onClick={setAll}>
          Set
        </Button>
        {!fault && !treesFault && (
          <span>
            {ports.length === 0
              ? 'select ports or links (Shift or Ctrl and click for several); empty goes back to all trees'
              : `for ${counted(ports.length, 'port')} in ${counted(of.length, 'tree')}`}
          </span>
        )}
        {choice}
      </FilterField>
      {(fault ?? treesFault) && (
        <p className={styles.fault} role="alert">
          {fault ?? treesFault}
        </p>
      )}
      <Grid
        aria-label="Costs and port priorities by trees"
        rows={filter.rows}
        columns={columns}
        onOpen={open}
        chosen={chosen}
        processRowUpdate={update}
        onProcessRowUpdateError={(error: Error) => setFault(error.message)}
        isCellEditable={isEditable}
      />
    </>
  );
}

const itemOf = ({ at }: SteerRow): Item => ({ kind: 'port', ...at });

/** The ports that are selected, those of selected links among them. */
function portsIn(solution: Solution | null, items: readonly Item[]): PortAt[] {
  const links = new Map(solution?.network.design.links.map((link) => [link.id, link]));
  return items.flatMap((item): PortAt[] => {
    if (item.kind === 'port') return [{ switch: item.switch, port: item.port }];
    const link = item.kind === 'link' ? links.get(item.link) : undefined;
    return link ? [link.a, link.b] : [];
  });
}
