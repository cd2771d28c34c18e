'use client';
/** The frame of every Why: one card for each tree that is drawn. */
import { type ReactNode } from 'react';
import { treeName } from '../../../core/model/ids';
import { treeOf, type SettledTree, type Solution } from '../../../core/tree/settled';
import { Swatch } from '../../ui/Swatch';
import { useFollowing, useWorkbench } from '../../state/context';
import styles from '../../ui/panel.module.css';

interface Props {
  readonly title: string;
  /** A few words beside the tree's name. */
  readonly aside?: (tree: SettledTree, solution: Solution) => string;
  readonly children: (tree: SettledTree, solution: Solution) => ReactNode;
}

export function WhyTrees({ title, aside, children }: Props) {
  const solution = useFollowing((state) => state.solution); // the map is drawn first
  const shown = useWorkbench((state) => state.shownTrees);
  if (!solution) return null;
  return (
    <section className={styles.section} aria-label="Why">
      <h3>{title}</h3>
      {shown.map((id) => {
        const tree = treeOf(solution, id);
        return tree ? (
          <div key={id} className={styles.why}>
            <div className={styles.whyTree}>
              <Swatch index={solution.trees.indexOf(tree)} width={22} /> {treeName(id)}{' '}
              {aside && <small>{aside(tree, solution)}</small>}
            </div>
            {children(tree, solution)}
          </div>
        ) : null;
      })}
    </section>
  );
}
