'use client';
/** What the network tells of the selected switch or port, beside what the design says. */
import type { Difference } from '../../../core/exchange/observation/compare/difference';
import { matchPorts } from '../../../core/exchange/observation/match';
import { treeThere } from '../../../core/exchange/observation/compare/held';
import { treeName, treesName, type BridgePortId, type SwitchId } from '../../../core/model/ids';
import { useFollowing, useWorkbench } from '../../state/context';
import { mayEdit } from '../../state/looking';
import { useComparison } from '../../state/observation';
import { TextButton } from '../../ui/TextButton';
import styles from '../../ui/panel.module.css';

/** So many are told; the table has all. */
const MOST = 6;

export function AsTold({ id, port = null }: { readonly id: SwitchId; readonly port?: BridgePortId | null }) {
  const comparison = useComparison();
  const pair = comparison?.matches.pairs.find(({ designed }) => designed.id === id);
  if (!comparison) return null;
  const own = comparison.differences.filter((each) => each.switch === id && (port === null || each.port === port));
  return (
    <section className={styles.section} aria-label="As the network tells it">
      <h3>As the network tells it</h3>
      {!pair && <p>It was not read.</p>}
      {pair && port !== null && <InTrees id={id} port={port} />}
      {pair && own.length === 0 && <p>All of it is as designed.</p>}
      {own.slice(0, MOST).map((each, i) => (
        <Other key={i} difference={each} />
      ))}
      {own.length > MOST && <p>and {own.length - MOST} more in the table.</p>}
    </section>
  );
}

/** Role, state and cost in each tree that is shown. */
function InTrees({ id, port }: { readonly id: SwitchId; readonly port: BridgePortId }) {
  const comparison = useComparison();
  const design = useFollowing((state) => state.design);
  const network = useFollowing((state) => state.solution?.network);
  const shown = useWorkbench((state) => state.shownTrees);
  const pair = comparison?.matches.pairs.find(({ designed }) => designed.id === id);
  if (!pair || !network) return null;
  const number = [...matchPorts(design, pair)].find(([, { of }]) => of.id === port)?.[0];
  const sw = network.switches[network.switchIndex.get(id)!]!;
  return shown.map((tree) => {
    const there = treeThere(sw, pair, tree)?.ports.find((each) => each.port === number);
    return there ? (
      <p key={tree}>
        {treeName(tree)}: {there.role}, {there.state === 'blocking' ? 'discarding' : there.state}, cost{' '}
        {there.cost.toLocaleString('en-GB').replaceAll(',', '\u2009')}
      </p>
    ) : null;
  });
}

function Other({ difference }: { readonly difference: Difference }) {
  const act = useWorkbench((state) => state.act);
  const editable = useWorkbench(mayEdit);
  const { what, trees, designed, observed, why, takeOver } = difference;
  return (
    <p>
      {what}
      {trees.length > 0 && ` in ${treesName(trees)}`}: <b>{observed}</b>; the design says {designed}
      {why === '' ? '.' : `: ${why}.`}{' '}
      {takeOver && editable && (
        <TextButton does="edit" onClick={() => void act(...takeOver())}>
          take over
        </TextButton>
      )}
    </p>
  );
}
