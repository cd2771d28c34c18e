'use client';
/** What the loss of one member costs: the bundle's new cost in each shown tree, and the ends that it moves. */
import { useState } from 'react';
import { editAll } from '../../../core/edit/edit';
import { treeName, type PortId } from '../../../core/model/ids';
import type { Bundle } from '../../../core/model/document';
import { movedEnds } from '../../../core/tree/moved';
import { compileNetwork } from '../../../core/topology/network';
import { treeOf } from '../../../core/tree/settled';
import { solveTrees } from '../../../core/tree/solve';
import { TextButton } from '../../ui/TextButton';
import styles from '../../ui/panel.module.css';
import { useFollowing, useWorkbench } from '../../state/context';
import { ROLE_LETTERS } from '../../ui/words/roles';
import { groupText } from '../../ui/words/units';
import { counted } from '../../../core/base/words';

/** Most ends that are named. */
const MOST = 6;

export function LossOfMember({ bundle }: { readonly bundle: Bundle }) {
  const design = useFollowing((state) => state.design);
  const solution = useFollowing((state) => state.solution);
  const shown = useWorkbench((state) => state.shownTrees);
  const [asked, setAsked] = useState<PortId | null>(null);
  const cables = bundle.ports.flatMap((port) =>
    design.links
      .filter((link) => link.up && [link.a, link.b].some((end) => end.switch === bundle.switch && end.port === port))
      .map((link) => ({ port, link })),
  );
  if (!solution || cables.length < 2) return null;
  const lost = cables.find(({ port }) => port === asked);
  const edited = lost && editAll(design, [{ do: 'set-link', link: lost.link.id, up: false }]);
  const after = edited?.ok ? compileNetwork(edited.value.design) : null;
  const trees = after ? solveTrees(after, shown) : [];
  const p = solution.network.portIndexOf(bundle.switch, bundle.id);
  return (
    <section className={styles.section} aria-label="If a member is lost">
      <h3>If a member is lost</h3>
      <p className={styles.hint}>
        With fewer members its path cost is higher. Without{' '}
        {cables.map(({ port }) => (
          <TextButton
            key={port}
            aria-pressed={asked === port}
            onClick={() => setAsked(asked === port ? null : port)}
          >{`port ${port}`}</TextButton>
        ))}
      </p>
      {after &&
        trees.map((tree) => {
          const before = treeOf(solution, tree.id);
          const ends = before
            ? movedEnds({ network: solution.network, trees: [before] }, { network: after, trees: [tree] }).filter(
                (end) => bundle.ports.every((id) => id !== end.port),
              )
            : [];
          const names = ends
            .slice(0, MOST)
            .map(
              (end) =>
                `${design.switches.find((sw) => sw.id === end.switch)?.name ?? end.switch} ${end.port} ${end.before ? ROLE_LETTERS[end.before] : '–'}→${end.after ? ROLE_LETTERS[end.after] : '–'}`,
            );
          return (
            <p key={tree.id} className={styles.hint}>
              <b>{treeName(tree.id)}</b>: cost {before ? groupText(before.cost[p]!) : '?'} to {groupText(tree.cost[p]!)}
              ;{' '}
              {ends.length === 0
                ? 'no port changes'
                : `${counted(ends.length, 'port')} ${ends.length === 1 ? 'changes' : 'change'}: ${names.join(', ')}${ends.length > MOST ? ' and more' : ''}`}
              .
            </p>
          );
        })}
    </section>
  );
}
