'use client';
/** Guards by rule, on all switches or on the selected ones: what each rule would set is seen before it is done. */
import { useMemo } from 'react';
import { guardRules, type GuardRule } from '../../../core/analysis/guards/rules';
import { useFollowing } from '../../state/context';
import { switchesIn } from '../../state/selection';
import { counted } from '../../../core/base/words';
import styles from '../../ui/table.module.css';
import group from '../shared/group.module.css';
import { Offers, type Offer } from '../shared/Offers';

const offerOf = ({ label, why, changes, of }: GuardRule, commands: GuardRule['commands']): Offer => ({
  commands,
  sentence: `${label}.`,
  price: `${why} Changes ${of === 'port' ? counted(changes, 'port') : counted(changes, 'switch', 'switches')}.`,
});

export function RulesTable() {
  const solution = useFollowing((state) => state.solution);
  const key = useFollowing((state) => switchesIn(state.selection).join('\n'));
  const rules = useMemo(
    () => (solution ? guardRules(solution, key === '' ? null : new Set(key.split('\n') as never[])) : []),
    [solution, key],
  );
  if (!solution) return <p className={styles.empty}>No tree could be solved.</p>;
  const [open, done] = [
    rules.filter((rule) => rule.commands.length > 0),
    rules.filter((rule) => rule.commands.length === 0),
  ];
  return (
    <div className={group.propose}>
      <p className={styles.summary}>
        {key === ''
          ? 'On all switches; with some selected, on those.'
          : `On ${counted(key.split('\n').length, 'selected switch', 'selected switches')}.`}
      </p>
      <Offers
        offers={open.map((rule) => offerOf(rule, rule.commands))}
        of={solution.network.design}
        done={() => undefined}
      />
      {done.length > 0 && (
        <p className={styles.summary}>Nothing left to do: {done.map((rule) => rule.label).join('; ')}.</p>
      )}
    </div>
  );
}
