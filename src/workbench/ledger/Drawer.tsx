'use client';
/** The drawer below the map: tables that say all that the map shows. */
import ButtonBase from '@mui/material/ButtonBase';
import type { ComponentType } from 'react';
import { TextButton } from '../frame/TextButton';
import { useWorkbench } from '../state/context';
import type { DrawerTab, Lens } from '../state/store';
import styles from './drawer.module.css';
import { Boundary } from '../ui/Boundary';
import { loadable } from '../ui/loadable';
import { FindingsList } from './FindingsList';

const SHARED = [
  ['moved', 'Moved ends'],
  ['findings', 'Findings'],
  ['history', 'History'],
] as const;
const TABS: Readonly<Record<Lens, readonly (readonly [DrawerTab, string])[]>> = {
  Cable: [['cables', 'Cables'], ['neighbours', 'Neighbours'], ['hosts', 'Hosts'], ['vlans', 'VLANs'], ...SHARED],
  Root: [['ledger', 'Ledger'], ['roots', 'Roots'], ['losses', 'If a root dies'], ['worksheet', 'Worksheet'], ...SHARED],
  Steer: [
    ['paths', 'Ways to the root'],
    ['wishes', 'Wishes'],
    ['costs', 'Costs'],
    ['sharing', 'Sharing'],
    ['control', 'Control plane'],
    ['ledger', 'Ledger'],
    ...SHARED,
  ],
  Group: [
    ['board', 'Board'],
    ['regions', 'Regions'],
    ['gain', 'Gain'],
    ['moving', 'Moving'],
    ['vlans', 'VLANs'],
    ['ledger', 'Ledger'],
    ...SHARED,
  ],
  Bundle: [
    ['bundles', 'Bundles'],
    ['modes', 'Modes'],
    ['flows', 'Flows'],
    ['plan', 'Plan of action'],
    ['ledger', 'Ledger'],
    ...SHARED,
  ],
  Break: [
    ['clock', 'Clock'],
    ['outages', 'What it cost'],
    ['order', 'Order of events'],
    ['reach', 'Frame paths'],
    ['frames', 'Frames'],
    ['sides', 'Side by side'],
    ['findings', 'Findings'],
    ['history', 'History'],
  ],
};
// The grid is the largest part of the page: the map does not wait for it.
const Ledger = loadable('Ledger', () => import('./Ledger').then((m) => m.Ledger));
const MovedTable = loadable('MovedTable', () => import('./MovedTable').then((m) => m.MovedTable));
const CableTable = loadable('CableTable', () => import('./CableTable').then((m) => m.CableTable));
const NeighbourTable = loadable('NeighbourTable', () => import('./NeighbourTable').then((m) => m.NeighbourTable));
const HostTable = loadable('HostTable', () => import('./HostTable').then((m) => m.HostTable));
const VlanTable = loadable('VlanTable', () => import('./VlanTable').then((m) => m.VlanTable));
const PathTable = loadable('PathTable', () => import('./PathTable').then((m) => m.PathTable));
const WishesTable = loadable('WishesTable', () => import('../steering/WishesTable').then((m) => m.WishesTable));
const SharingTable = loadable('SharingTable', () => import('../steering/SharingTable').then((m) => m.SharingTable));
const ControlTable = loadable('ControlTable', () => import('../steering/ControlTable').then((m) => m.ControlTable));
const SteerMatrix = loadable('SteerMatrix', () => import('./SteerMatrix').then((m) => m.SteerMatrix));
const RootMatrix = loadable('RootMatrix', () => import('./RootMatrix').then((m) => m.RootMatrix));
const LossTable = loadable('LossTable', () => import('./LossTable').then((m) => m.LossTable));
const WorksheetTable = loadable('WorksheetTable', () =>
  import('../worksheet/WorksheetTable').then((m) => m.WorksheetTable),
);
const ClockTable = loadable('ClockTable', () => import('../clock/ClockTable').then((m) => m.ClockTable));
const OutageTable = loadable('OutageTable', () => import('../clock/OutageTable').then((m) => m.OutageTable));
const OrderTable = loadable('OrderTable', () => import('../clock/OrderTable').then((m) => m.OrderTable));
const FramesTable = loadable('FramesTable', () => import('../clock/FramesTable').then((m) => m.FramesTable));
const ReachTable = loadable('ReachTable', () => import('../clock/ReachTable').then((m) => m.ReachTable));
const SidesTable = loadable('SidesTable', () => import('../clock/SidesTable').then((m) => m.SidesTable));
const Board = loadable('Board', () => import('../group/Board').then((m) => m.Board));
const RegionsTable = loadable('RegionsTable', () => import('../group/RegionsTable').then((m) => m.RegionsTable));
const GainTable = loadable('GainTable', () => import('../group/GainTable').then((m) => m.GainTable));
const MovingTable = loadable('MovingTable', () => import('../group/MovingTable').then((m) => m.MovingTable));
const BundleTable = loadable('BundleTable', () => import('../bundle/BundleTable').then((m) => m.BundleTable));
const ModesTable = loadable('ModesTable', () => import('../bundle/ModesTable').then((m) => m.ModesTable));
const FlowsTable = loadable('FlowsTable', () => import('../bundle/FlowsTable').then((m) => m.FlowsTable));
const PlanTable = loadable('PlanTable', () => import('../bundle/PlanTable').then((m) => m.PlanTable));
const HistoryTable = loadable('HistoryTable', () => import('./HistoryTable').then((m) => m.HistoryTable));
const TABLES: Readonly<Record<DrawerTab, ComponentType>> = {
  board: Board,
  regions: RegionsTable,
  gain: GainTable,
  moving: MovingTable,
  bundles: BundleTable,
  modes: ModesTable,
  flows: FlowsTable,
  plan: PlanTable,
  clock: ClockTable,
  outages: OutageTable,
  order: OrderTable,
  frames: FramesTable,
  reach: ReachTable,
  sides: SidesTable,
  wishes: WishesTable,
  sharing: SharingTable,
  control: ControlTable,
  paths: PathTable,
  costs: SteerMatrix,
  ledger: Ledger,
  roots: RootMatrix,
  losses: LossTable,
  moved: MovedTable,
  cables: CableTable,
  neighbours: NeighbourTable,
  hosts: HostTable,
  vlans: VlanTable,
  findings: FindingsList,
  worksheet: WorksheetTable,
  history: HistoryTable,
};
/** Tables of the Break lens: the simulator gives them what they need. */
const ON_THE_CLOCK = ['clock', 'outages', 'order', 'reach', 'frames', 'sides'] as const satisfies readonly DrawerTab[];
/** Tables that need no trees. */
const TREELESS: ReadonlySet<DrawerTab> = new Set([
  'cables',
  'neighbours',
  'hosts',
  'vlans',
  'history',
  'bundles',
  'modes',
  'flows',
  'plan',
  ...ON_THE_CLOCK,
]);
/** Tables that give nothing away while a worksheet is filled in. */
const OPEN: ReadonlySet<DrawerTab> = new Set(['worksheet', 'cables', 'neighbours', 'hosts', 'vlans']);

/** Tables that need more of the screen than the others. */
const TALL: ReadonlySet<DrawerTab> = new Set([
  ...ON_THE_CLOCK,
  'modes',
  'flows',
  'plan',
  'board',
  'regions',
  'gain',
  'moving',
]);

export function Drawer() {
  const { tab, open } = useWorkbench((state) => state.drawer);
  const lens = useWorkbench((state) => state.lens);
  const counts: Partial<Record<DrawerTab, number>> = {
    moved: useWorkbench((state) => state.moved?.ends.length ?? 0),
    findings: useWorkbench((state) => state.findings.list.length),
    wishes: useWorkbench((state) => state.wishes.list.length),
  };
  const openDrawer = useWorkbench((state) => state.openDrawer);
  const toggle = useWorkbench((state) => state.toggleDrawer);
  // The trees come first: loading the grid beside the solver would hold both up.
  const solved = useWorkbench((state) => state.solution !== null);
  const problem = useWorkbench((state) => state.problem !== null);
  const hidden = useWorkbench((state) => state.viewing?.hidden === true);
  const Table = TABLES[tab];
  const shown = hidden ? OPEN.has(tab) : solved || (problem && TREELESS.has(tab));
  return (
    <section
      className={`${styles.drawer} ${open ? (TALL.has(tab) ? styles.tall : '') : styles.closed}`}
      aria-label="Drawer"
    >
      <div className={styles.bar}>
        <div role="tablist" aria-label="Tables" className={styles.tabs}>
          {TABS[lens].map(([key, label]) => (
            <ButtonBase
              key={key}
              role="tab"
              id={`tab-${key}`}
              aria-selected={open && tab === key}
              aria-controls="drawer-table"
              className={styles.tab}
              onClick={() => openDrawer(key)}
            >
              {label}
              {counts[key] ? ` ${counts[key]}` : ''}
            </ButtonBase>
          ))}
        </div>
        <TextButton onClick={toggle} aria-expanded={open} aria-controls="drawer-table">
          {open ? 'close drawer' : 'open drawer'}
        </TextButton>
      </div>
      {open && (
        <div className={styles.table} role="tabpanel" id="drawer-table" aria-labelledby={`tab-${tab}`}>
          {shown ? (
            <Boundary what="This table" of={tab}>
              <Table />
            </Boundary>
          ) : (
            <p className={styles.empty}>
              {hidden
                ? 'Hidden while a worksheet is filled in.'
                : problem
                  ? 'There are no trees to list: the message above the map says why.'
                  : 'Waiting for the trees.'}
            </p>
          )}
        </div>
      )}
    </section>
  );
}
