'use client';
/** Below the map: zooming, the two layouts, the legend, tidying. */
import { memo, useState, type ComponentType } from 'react';
import { loadable } from '../ui/loadable';
import { Term } from '../ui/Term';
import { TextButton } from '../ui/TextButton';
import { useWorkbench } from '../state/context';
import { groupsOf, outermost } from '../state/folding';
import styles from './map.module.css';
import { mayEdit } from '../state/looking';

const LETTERS = [
  ['R', 'root port'],
  ['D', 'designated'],
  ['A', 'alternate'],
  ['B', 'backup'],
] as const;
/** Where some switch speaks MSTP. */
const MASTER = ['M', 'master'] as const;
const Legend = loadable('the legend', () => import('./legend/Legend').then((m) => m.Legend));

export const MapFoot = memo(function MapFoot({ Signs }: { readonly Signs?: ComponentType | undefined }) {
  const controls = useWorkbench((state) => state.controls);
  const lens = useWorkbench((state) => state.lens);
  const [open, setOpen] = useState(false);
  return (
    <>
      {open && (
        <section
          className={styles.legendPanel}
          aria-label="Legend"
          onKeyDown={(event) => event.key === 'Escape' && setOpen(false)}
        >
          <header>
            <h2>Signs in the {lens} view</h2>
            <TextButton does="plain" onClick={() => setOpen(false)}>
              close
            </TextButton>
          </header>
          <Legend Signs={Signs} />
        </section>
      )}
      <div className={styles.foot} data-foot="">
        <span className={styles.zoom} role="group" aria-label="Zoom">
          <TextButton does="plain" onClick={() => controls?.whole()}>
            whole map
          </TextButton>
          <TextButton does="plain" onClick={() => controls?.closer()}>
            zoom in
          </TextButton>
          <TextButton does="plain" onClick={() => controls?.farther()}>
            zoom out
          </TextButton>
        </span>
        <TextButton aria-expanded={open} onClick={() => setOpen(!open)}>
          legend
        </TextButton>
        <LayoutChoice />
        <FoldChoice />
        {lens === 'Cable' ? <TidyChoice /> : <Letters />}
      </div>
    </>
  );
});

/** How high the bar is now, pixels. */
export const footHeight = (): number => document.querySelector<HTMLElement>('[data-foot]')?.offsetHeight ?? 18;

/** As placed, or hung from the root of the first tree shown. */
function LayoutChoice() {
  const layout = useWorkbench((state) => state.layout);
  const setLayout = useWorkbench((state) => state.setLayout);
  const trees = useWorkbench((state) => state.shownTrees.length > 0);
  return (
    <span className={styles.zoom} role="group" aria-label="Layout of the map">
      <TextButton aria-pressed={layout === 'placed'} onClick={() => setLayout('placed')}>
        as placed
      </TextButton>
      <TextButton aria-pressed={layout === 'hung'} disabled={!trees} onClick={() => setLayout('hung')}>
        hung from root
      </TextButton>
    </span>
  );
}

/** All groups as boxes, or all drawn open; where there are any. */
function FoldChoice() {
  const design = useWorkbench((state) => state.design);
  const folded = useWorkbench((state) => state.folded);
  const placed = useWorkbench((state) => state.layout === 'placed' && state.focus === null);
  const fold = useWorkbench((state) => state.fold);
  const groups = groupsOf(design);
  if (groups.length === 0 || !placed) return null;
  return (
    <span className={styles.zoom} role="group" aria-label="Groups on the map">
      <TextButton
        does="plain"
        disabled={[...outermost(design)].every((id) => folded.has(id))}
        onClick={() => fold(outermost(design), 'fold')}
      >
        fold groups
      </TextButton>
      <TextButton
        does="plain"
        disabled={!groups.some(({ group }) => folded.has(group.id))}
        onClick={() => fold(folded, 'unfold')}
      >
        unfold
      </TextButton>
    </span>
  );
}

function TidyChoice() {
  const tidy = useWorkbench((state) => state.controls?.tidy);
  const idle = useWorkbench((state) => mayEdit(state) && state.design.switches.length > 0);
  return (
    <span className={styles.zoom} role="group" aria-label="Tidy the map">
      <TextButton does="edit" disabled={!idle} onClick={() => tidy?.('tier')} title="moves the switches, as one step">
        tidy by tier
      </TextButton>
      <TextButton does="edit" disabled={!idle} onClick={() => tidy?.('root')} title="moves the switches, as one step">
        tidy by root
      </TextButton>
    </span>
  );
}

function Letters() {
  const regional = useWorkbench((state) => state.solution?.trees.some((tree) => tree.regional) ?? false);
  return (
    <dl aria-label="letters on the map">
      {[...LETTERS, ...(regional ? [MASTER] : [])].map(([letter, word]) => (
        <div key={letter}>
          <dt>{letter}</dt>
          <dd>
            <Term>{word}</Term>
          </dd>
        </div>
      ))}
    </dl>
  );
}
