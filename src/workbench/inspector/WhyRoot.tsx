'use client';
/** Who is root as seen from a switch, and why: the ranking of bridge IDs in its island. */
import { useState } from 'react';
import { treeName, type SwitchId } from '../../core/design/ids';
import { bridgeIdText } from '../../core/tree/bridgeId';
import { explainRoot, type Election } from '../../core/tree/election';
import { treeOf } from '../../core/tree/settled';
import { TextButton } from '../frame/TextButton';
import { Swatch } from '../rail/Swatch';
import { useWorkbench } from '../state/context';
import styles from './inspector.module.css';

/** Rows shown before someone asks for all. */
const FEW_ROWS = 3;

export function WhyRoot({ id }: { readonly id: SwitchId }) {
  const solution = useWorkbench((state) => state.solution);
  const shown = useWorkbench((state) => state.shownTrees);
  const s = solution?.network.switchIndex.get(id);
  if (!solution || s === undefined) return null;
  return (
    <section className={styles.section} aria-label="Why">
      <h3>Why this root</h3>
      {shown.map((treeId) => {
        const tree = treeOf(solution, treeId);
        const election = tree && explainRoot(solution.network, tree, s);
        if (!tree) return null;
        return (
          <div key={treeId} className={styles.why}>
            <div className={styles.whyTree}>
              <Swatch index={solution.trees.indexOf(tree)} width={22} /> {treeName(treeId)}
            </div>
            {election ? <Ranking election={election} self={s} /> : <p>This switch takes no part in the tree.</p>}
          </div>
        );
      })}
    </section>
  );
}

function Ranking({ election, self }: { readonly election: Election; readonly self: number }) {
  const select = useWorkbench((state) => state.select);
  const switches = useWorkbench((state) => state.design.switches);
  const rows = election.ranking.map((contender, place) => ({ contender, place }));
  const own = rows.find(({ contender }) => contender.switchIndex === self);
  const [all, setAll] = useState(false);
  const listed = all ? rows : rows.slice(0, FEW_ROWS);
  if (!all && own && own.place >= FEW_ROWS) listed.push(own);
  return (
    <>
      <p>{election.sentence}</p>
      <table className={styles.ranking} aria-label="bridge IDs, the best first">
        <tbody>
          {listed.map(({ contender, place }) => (
            <tr key={contender.switchIndex} aria-current={contender.switchIndex === self || undefined}>
              <td>{place + 1}</td>
              <td>
                <TextButton onClick={() => select({ kind: 'switch', switch: switches[contender.switchIndex]!.id })} disabled={contender.switchIndex === self}>
                  {contender.name.slice(0, 40)}
                </TextButton>
              </td>
              <td title={`${contender.priority} and ${contender.extension} from the tree`}>{bridgeIdText(contender.id)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {rows.length > FEW_ROWS && (
        <TextButton onClick={() => setAll(!all)} aria-expanded={all}>
          {all ? 'only the first' : `all ${rows.length} bridges`}
        </TextButton>
      )}
    </>
  );
}
