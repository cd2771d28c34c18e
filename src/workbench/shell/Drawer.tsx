'use client';
/** The drawer below the map: tables that say all that the map shows. */
import { manifestOf, tableIn } from '../lenses/lenses';
import type { Table } from '../lenses/manifest';
import ButtonBase from '@mui/material/ButtonBase';
import { TextButton } from '../ui/TextButton';
import { useWorkbench } from '../state/context';
import styles from '../ui/table.module.css';
import { Boundary } from '../ui/Boundary';
import { isHidden } from '../state/looking';

export function Drawer() {
  const { tab, open } = useWorkbench((state) => state.drawer);
  const lens = useWorkbench((state) => state.lens);
  const openDrawer = useWorkbench((state) => state.openDrawer);
  const toggle = useWorkbench((state) => state.toggleDrawer);
  // The trees come first: loading the grid beside the solver would hold both up.
  const solved = useWorkbench((state) => state.solution !== null);
  const problem = useWorkbench((state) => state.problem !== null);
  const hidden = useWorkbench(isHidden);
  const table = tableIn(lens, tab);
  const { key, Body } = table;
  // One height for all tables of a lens: the map must not move when another is opened.
  const tall = manifestOf(lens).tables.some((each) => each.tall);
  const shown = hidden ? table.open : solved || (problem && table.withoutTrees);
  return (
    <div className={`${styles.drawer} ${open ? (tall ? styles.tall : '') : styles.closed}`}>
      <div className={styles.bar}>
        <div role="tablist" aria-label="Tables" className={styles.tabs}>
          {manifestOf(lens).tables.map((each) => (
            <Tab key={each.key} table={each} selected={open && each === table} open={() => openDrawer(each.key)} />
          ))}
        </div>
        <TextButton does="plain" onClick={toggle} aria-expanded={open} aria-controls="drawer-table">
          {open ? 'hide table' : 'show table'}
        </TextButton>
      </div>
      {open && (
        <div className={styles.table} role="tabpanel" id="drawer-table" aria-labelledby={`tab-${key}`}>
          {shown ? (
            <Boundary what="This table" of={key}>
              <Body />
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
    </div>
  );
}

/** A tab with how many things its table holds. */
function Tab({
  table: { key, label, count },
  selected,
  open,
}: {
  readonly table: Table;
  readonly selected: boolean;
  readonly open: () => void;
}) {
  const held = useWorkbench((state) => count?.(state) ?? 0);
  return (
    <ButtonBase
      role="tab"
      id={`tab-${key}`}
      aria-selected={selected}
      aria-controls="drawer-table"
      className={styles.tab}
      onClick={open}
    >
      {label}
      {held ? ` ${held}` : ''}
    </ButtonBase>
  );
}
