'use client';
/** Who is root as seen from a switch, and why: the ranking of bridge IDs in its island. */
import { useState } from 'react';
import type { SwitchId } from '../../../core/model/ids';
import { bridgeIdText } from '../../../core/topology/bridgeId';
import { explainRegionalRoot, explainRoot, type Election } from '../../../core/tree/explain/election';
import { TextButton } from '../../ui/TextButton';
import { useWorkbench } from '../../state/context';
import styles from '../../ui/panel.module.css';
import { WhyTrees } from './WhyTrees';

/** Rows shown before someone asks for all. */
const FEW_ROWS = 3;

export function WhyRoot({ id }: { readonly id: SwitchId }) {
  return (
    <WhyTrees title="Why this root">
      {(tree, { network }) => {
        const s = network.switchIndex.get(id) ?? -1;
        const election = s < 0 ? null : explainRoot(network, tree, s);
        const regional = s < 0 ? null : explainRegionalRoot(network, tree, s);
        return election ? (
          <>
            <Ranking election={election} self={s} />
            {regional && <p>{regional}</p>}
          </>
        ) : (
          <p>This switch {network.switches[s]?.up === false ? 'has no power' : 'takes no part in the tree'}.</p>
        );
      }}
    </WhyTrees>
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
                <TextButton
                  onClick={() => select({ kind: 'switch', switch: switches[contender.switchIndex]!.id })}
                  disabled={contender.switchIndex === self}
                >
                  {contender.name.slice(0, 40)}
                </TextButton>
              </td>
              <td title={`${contender.priority} and ${contender.extension} from the tree`}>
                {bridgeIdText(contender.id)}
              </td>
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
