'use client';
/** Why a port has its role in each shown tree: the sentence, and the vectors side by side with the part that decided. */
import type { BridgePortId, SwitchId } from '../../../core/model/ids';
import { explainPort, whyOutside, type PortExplanation } from '../../../core/tree/explain/explain';
import { fieldName, type VectorComparison } from '../../../core/tree/explain/phrases';
import type { SettledTree, Solution } from '../../../core/tree/settled';
import { fieldText, fieldsOf, type VectorField } from '../../../core/tree/explain/vector';
import { useWorkbench } from '../../state/context';
import styles from '../../ui/panel.module.css';
import { MarginNote } from './MarginNote';
import { WhyTrees } from './WhyTrees';

export function WhyPort({ id, port }: { readonly id: SwitchId; readonly port: BridgePortId }) {
  const settled = useWorkbench((state) => state.lens === 'Break');
  const explain = (tree: SettledTree, solution: Solution) => {
    const p = solution.network.portIndexOf(id, port);
    return p < 0 ? null : explainPort(solution, tree, p);
  };
  return (
    <WhyTrees
      title={settled ? 'Why, before anything happens' : 'Why'}
      aside={(tree, solution) => {
        const why = explain(tree, solution);
        return why ? `${why.role}, ${why.state}` : 'not in this tree';
      }}
    >
      {(tree, solution) => {
        const why = explain(tree, solution);
        return why ? (
          <>
            <Reason why={why} />
            <MarginNote tree={tree.id} id={id} port={port} />
          </>
        ) : (
          <p>{whyOutside(solution.network, tree, solution.network.portIndexOf(id, port))}</p>
        );
      }}
    </WhyTrees>
  );
}

function Reason({ why }: { readonly why: PortExplanation }) {
  return (
    <>
      <p>{why.sentence}</p>
      {why.comparisons.map((comparison, i) => (
        <details key={comparison.question} open={i === 0} className={styles.compared}>
          <summary>{comparison.question}</summary>
          <Vectors comparison={comparison} />
        </details>
      ))}
    </>
  );
}

/** Short names of a vector's parts for the narrow table. */
const ROW_NAMES: Readonly<Record<VectorField, string>> = {
  root: 'root',
  rootPathCost: 'path cost',
  regionalRoot: 'regional root',
  internalRootPathCost: 'internal cost',
  designatedBridge: 'bridge',
  designatedPort: 'port',
  receivingPort: 'own port',
};

function Vectors({ comparison: { winner, loser, decidedBy } }: { readonly comparison: VectorComparison }) {
  return (
    <table className={styles.vectors}>
      <colgroup>
        <col />
        <col />
        <col />
      </colgroup>
      <thead>
        <tr>
          <td />
          <th scope="col">{inLines(winner.label)}</th>
          <th scope="col">{inLines(loser.label)}</th>
        </tr>
      </thead>
      <tbody>
        {fieldsOf(winner.vector).map((field) => (
          <tr
            key={field}
            className={field === decidedBy ? styles.decided : undefined}
            data-decided={field === decidedBy ? field : undefined}
          >
            <th scope="row" title={fieldName(winner.vector, field)}>
              {field === 'rootPathCost' && winner.vector.regionalRoot ? 'external cost' : ROW_NAMES[field]}
              {field === decidedBy && <span className="visually-hidden"> (decided)</span>}
            </th>
            {[winner, loser].map(({ vector }, i) => (
              <td key={i} title={fieldText(vector, field)}>
                {shortened(fieldText(vector, field), fieldText((i === 0 ? loser : winner).vector, field))}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** `port 1, from ridge-a` on two lines. */
const inLines = (label: string) => label.split(', ').map((part) => <div key={part}>{part}</div>);

/** A bridge ID without the octets of its MAC that the other side has too, at least the last two kept; other texts as they are. */
export function shortened(text: string, other: string): string {
  const [priority, mac] = text.split('.');
  const octets = mac?.split(':') ?? [];
  if (octets.length !== 6) return text;
  const others = other.split('.')[1]?.split(':') ?? [];
  const shared = octets.findIndex((octet, i) => octet !== others[i]);
  const kept = octets.slice(Math.min(4, shared < 0 ? 6 : shared));
  return kept.length === 6 ? text : `${priority}.…${kept.join(':')}`;
}
