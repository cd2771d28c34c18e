'use client';
/** Two switches selected: each root of its part of the trees and standby of the rest, in one step. */
import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import type { DealRule } from '../../../core/analysis/regions/grouping';
import { pairOfRoots, sharedOut } from '../../../core/analysis/roots/pair';
import { placingText } from '../../../core/analysis/roots/placing';
import { forVlansToCome } from '../../../core/analysis/roots/toCome';
import { editAll } from '../../../core/edit/edit';
import { treesName, treeVlan, type TreeId } from '../../../core/model/ids';
import { nameOf } from '../../../core/model/names';
import { problemText } from '../../../core/model/problem';
import { VlanSet } from '../../../core/model/vlanSet';
import { useFollowing, useWorkbenchStore } from '../../state/context';
import type { Chosen } from '../../state/subject';
import { ChoiceSetting, TextSetting } from '../../ui/fields';
import { RULE_CHOICES } from '../../ui/words/choices';
import * as read from '../../ui/read';
import styles from '../../ui/panel.module.css';

type Rule = DealRule | 'these';
const RULES: readonly (readonly [Rule, string])[] = [...RULE_CHOICES, ['these', 'VLANs that I write']];
const NO_TREES: readonly TreeId[] = [];

/** `ridge-a root of VLANs 1,25, ridge-b root of VLANs 15,35, each the other’s standby`. */
function partsText([first, second]: readonly [readonly TreeId[], readonly TreeId[]], a: string, b: string): string {
  const [own, other] = [`${a} root of ${treesName(first)}`, `${b} root of ${treesName(second)}`];
  if (second.length === 0) return `${own}, ${b} its standby`;
  return first.length === 0 ? `${other}, ${a} its standby` : `${own}, ${other}, each the other’s standby`;
}

export function PairOfRoots({ chosen: { switches } }: { readonly chosen: Chosen }) {
  const store = useWorkbenchStore();
  const design = useFollowing((state) => state.design);
  const solution = useFollowing((state) => state.solution);
  const [written, setWritten] = useState('');
  const trees = useMemo(() => solution?.trees.map((tree) => tree.id) ?? NO_TREES, [solution]);
  const [chosenRule, setRule] = useState<Rule | null>(null);
  const rule = chosenRule ?? (sharedOut(design, trees, 'parity').every((part) => part.length > 0) ? 'parity' : 'turn');
  const [a, b] = switches;
  const parts = useMemo((): readonly [readonly TreeId[], readonly TreeId[]] => {
    if (rule !== 'these') return sharedOut(design, trees, rule);
    const parsed = VlanSet.parse(written || '1');
    const own = (tree: TreeId): boolean => parsed.ok && parsed.value.has(treeVlan(tree) ?? 0);
    return [trees.filter(own), trees.filter((tree) => !own(tree))];
  }, [design, trees, rule, written]);
  if (!a || !b || switches.length !== 2 || trees.length === 0) return null;
  const several = trees.length > 1;
  const act = () => {
    const { act: apply, advise } = store.getState();
    const pair = pairOfRoots(design, parts, [a.id, b.id]);
    if (!pair.ok) return advise({ text: problemText(pair.error), remedy: null });
    const { commands, placings } = pair.value;
    const undone = placings.filter((placing) => !placing.done);
    const refused = commands.length > 0 ? apply(...commands) : null;
    const edited = editAll(design, commands);
    const toCome = edited.ok ? forVlansToCome(edited.value.design, trees, [a.id, b.id], parts[0][0] ?? trees[0]!) : [];
    advise({
      text:
        refused ??
        (undone.length > 0
          ? placingText(undone)
          : commands.length === 0
            ? `${nameOf(a)} and ${nameOf(b)} are roots and standbys so already.`
            : `${partsText(parts, nameOf(a), nameOf(b))}.`),
      remedy: toCome.length > 0 ? { label: 'and for VLANs to come', commands: toCome } : null,
    });
  };
  return (
    <section className={styles.section} aria-label="A pair of roots">
      <h3>A pair of roots</h3>
      {several && <ChoiceSetting label="Trees by" value={rule} options={RULES} commit={setRule} />}
      {rule === 'these' && (
        <TextSetting
          label={`VLANs of ${nameOf(a)}`}
          value={written}
          placeholder="15,25-29"
          read={read.vlans}
          commit={(vlans) => {
            setWritten(vlans);
            return null;
          }}
        />
      )}
      <p className={styles.hint}>{partsText(parts, nameOf(a), nameOf(b))}.</p>
      <div className={styles.buttons}>
        <Button variant="outlined" onClick={act}>
          Make them roots
        </Button>
      </div>
    </section>
  );
}
