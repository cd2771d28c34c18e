'use client';
/** Below the map: zooming, the two layouts, tidying, what the letters mean. */
import { TextButton } from '../ui/TextButton';
import { useWorkbench } from '../state/context';
import type { MapControls } from '../state/store';
import { groupsOf, outermost } from '../state/folding';
import styles from './map.module.css';
import { atPresent } from '../state/looking';

const LETTERS = [
  ['R', 'root port'],
  ['D', 'designated'],
  ['A', 'alternate'],
  ['B', 'backup, both block'],
] as const;
/** Where some switch speaks MSTP. */
const MASTER = ['M', 'master'] as const;
const ZOOMS: readonly (readonly [string, (controls: MapControls) => void])[] = [
  ['whole map', (c) => c.whole()],
  ['closer', (c) => c.closer()],
  ['farther', (c) => c.farther()],
];

export function MapFoot() {
  const controls = useWorkbench((state) => state.controls);
  const lens = useWorkbench((state) => state.lens);
  return (
    <div className={styles.foot} data-foot="">
      <span className={styles.zoom}>
        {ZOOMS.map(([label, go]) => (
          <TextButton key={label} onClick={() => controls && go(controls)}>
            {label}
          </TextButton>
        ))}
      </span>
      <LayoutChoice />
      <FoldChoice />
      {lens === 'Cable' ? <TidyChoice /> : <Letters short={lens === 'Break'} />}
      {lens === 'Break' && <span className={styles.zoom}>collar fills: on its way</span>}
    </div>
  );
}

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
        disabled={[...outermost(design)].every((id) => folded.has(id))}
        onClick={() => fold(outermost(design), 'fold')}
      >
        fold groups
      </TextButton>
      <TextButton disabled={!groups.some(({ group }) => folded.has(group.id))} onClick={() => fold(folded, 'unfold')}>
        unfold
      </TextButton>
    </span>
  );
}

function TidyChoice() {
  const tidy = useWorkbench((state) => state.controls?.tidy);
  const idle = useWorkbench((state) => atPresent(state) && state.design.switches.length > 0);
  return (
    <span className={styles.zoom} role="group" aria-label="Tidy the map">
      <span>tidy</span>
      <TextButton disabled={!idle} onClick={() => tidy?.('tier')}>
        by tier
      </TextButton>
      <TextButton disabled={!idle} onClick={() => tidy?.('root')}>
        by root
      </TextButton>
    </span>
  );
}

function Letters({ short }: { readonly short: boolean }) {
  const regional = useWorkbench((state) => state.solution?.trees.some((tree) => tree.regional) ?? false);
  return (
    <dl aria-label="letters on the map">
      {[...LETTERS, ...(regional ? [MASTER] : [])].map(([letter, word]) => (
        <div key={letter}>
          <dt>{letter}</dt>
          <dd>{short ? word.split(',')[0] : word}</dd>
        </div>
      ))}
    </dl>
  );
}
