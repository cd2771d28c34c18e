'use client';
/** What a switch believes of the network, beside what it is: in the lens of roots, where the two differ. */
import { beliefTrees, beliefsOf, unknownTo, type Belief } from '../../../core/analysis/dialects/belief';
import type { SwitchId } from '../../../core/model/ids';
import { treesName } from '../../../core/model/ids';
import { useFollowing } from '../../state/context';
import styles from '../../ui/panel.module.css';

export function AsItBelieves({ id }: { readonly id: SwitchId }) {
  const solution = useFollowing((state) => state.solution);
  const s = solution?.network.switchIndex.get(id);
  if (!solution || s === undefined) return null;
  const [beliefs, unknown] = [beliefsOf(solution, s), unknownTo(solution, s)];
  const agrees = ({ truth, neighbours }: Belief): boolean => truth === null && neighbours.length === 0;
  if (unknown.length === 0 && beliefs.every(agrees)) return null;
  return (
    <section className={styles.section} aria-label="As it believes">
      <h3>As it believes, and as it is</h3>
      <ul className={styles.list}>
        {beliefs.map((belief) => (
          <li key={beliefTrees(belief)}>
            {`${beliefTrees(belief)}: ${belief.root}.`}
            {belief.truth !== null && ` In truth ${belief.truth}.`}
            {belief.neighbours.map(
              ({ port, believes, truth }) => ` Port ${port} hears ${believes}; its cable leads to ${truth}.`,
            )}
          </li>
        ))}
        {unknown.length > 0 && (
          <li>{`${treesName(unknown)}: it knows nothing of them, and passes their BPDUs on as frames.`}</li>
        )}
      </ul>
    </section>
  );
}
