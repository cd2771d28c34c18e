/**
 * The map as the server draws it, in the frame of the workbench: what one sees until the page is alive, which then draws the
 * same in its place. Nothing in it can be pressed.
 */
import type { OpenDesign } from '../../contract/api';
import { compileNetwork } from '../../core/topology/network';
import { treesOf } from '../../core/topology/trees';
import { solveTrees } from '../../core/tree/solve';
import { boundsOf } from '../map/bounds';
import { foldSkeleton } from '../map/folded';
import { positionsOf, skeletonOf } from '../map/geometry';
import { drawingOf, MapDrawing } from '../map/picture/MapDrawing';
import { fitted } from '../map/zoom';
import { foldedAtFirst, mapGroups } from '../state/folding';
import { stillShown } from '../state/shownTrees';
import { Mark } from '../ui/Mark';
import styles from './frame.module.css';

/** The room of the map in a window of 1280 by 800; in another one the drawing is scaled to it. */
const ROOM = { width: 750, height: 500 } as const;
/** A larger network is left to the page: laying it out would keep others waiting. */
const MOST_SWITCHES = 1000;

export function FirstMap({ open: { design } }: { readonly open: OpenDesign }) {
  const shown = design.switches.length > 0 && design.switches.length <= MOST_SWITCHES;
  return (
    <div className={styles.frame} aria-hidden="true">
      <header className={styles.head}>
        <span className={styles.brand}>
          <Mark /> Knot Path
        </span>
        <div className={styles.design}>
          <b>{design.name}</b>
        </div>
      </header>
      <nav className={styles.firstRail} />
      <div className={`${styles.map} ${styles.firstMap}`}>{shown && <Drawn design={design} />}</div>
      <div className={styles.firstInspector} />
      <div className={styles.firstDrawer} />
    </div>
  );
}

function Drawn({ design }: Pick<OpenDesign, 'design'>) {
  const network = compileNetwork(design);
  const ids = treesOf(design);
  const [tree] = stillShown([], design, ids);
  const upTo = tree === undefined ? [] : ids.slice(0, ids.indexOf(tree) + 1);
  const { stands, open } = mapGroups(design, foldedAtFirst(design));
  const skeleton = foldSkeleton(skeletonOf(design, null), stands);
  const view = fitted(boundsOf(skeleton, positionsOf(skeleton), { strands: 1 }), ROOM);
  const drawing = drawingOf({
    design,
    solution: { network, trees: solveTrees(network, upTo) },
    trees: tree === undefined ? [] : [tree],
    stands,
    open,
    scale: view.zoom,
    title: '',
    css: '',
  });
  return (
    <svg
      viewBox={`${-view.x} ${-view.y} ${ROOM.width} ${ROOM.height}`}
      width="100%"
      height="100%"
      fontFamily="var(--sans)"
    >
      <MapDrawing drawing={drawing} />
    </svg>
  );
}
