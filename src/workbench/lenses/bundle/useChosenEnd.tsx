'use client';
/** The bundle that a table is about: the selected one, else the first; with a choice among all. */
import { useState, type ReactNode } from 'react';
import type { BundleEnd, Bundles } from '../../../core/topology/lag/ends';
import type { SettledBundles } from '../../../core/topology/lag/settled';
import { useWorkbench } from '../../state/context';
import own from './bundle.module.css';
import { useBundles } from '../../state/useBundles';
import { Select } from '../../ui/Select';

interface Chosen {
  readonly bundles: Bundles;
  readonly settled: SettledBundles;
  readonly end: BundleEnd | null;
  /** The field to choose by; nothing where there is no bundle. */
  readonly choice: ReactNode;
}

export function useChosenEnd(): Chosen {
  const { bundles, settled } = useBundles();
  const selection = useWorkbench((state) => state.selection);
  const [picked, setPicked] = useState<{ readonly id: string; readonly over: typeof selection } | null>(null);
  const selected = bundles.ends.find(
    ({ owner, id, members }) =>
      (selection?.kind === 'port' &&
        owner.kind === 'switch' &&
        owner.switch === selection.switch &&
        ((id as string) === selection.port || members.some((m) => bundles.members[m]!.at.port === selection.port))) ||
      (selection?.kind === 'host' && owner.kind === 'host' && owner.host === selection.host) ||
      (selection?.kind === 'link' && members.some((m) => bundles.members[m]!.link === selection.link)),
  );
  const keyOf = (end: BundleEnd): string => `${end.owner.kind} ${end.id}`;
  // What was chosen here holds until something else is selected on the map.
  const end =
    bundles.ends.find((each) => picked?.over === selection && keyOf(each) === picked.id) ??
    selected ??
    bundles.ends[0] ??
    null;
  const choice = end && (
    <label className={own.choice}>
      Bundle{' '}
      <Select
        label="Bundle"
        value={keyOf(end)}
        options={bundles.ends.map((each) => [
          keyOf(each),
          each.owner.kind === 'host' ? `${each.ownerName}, its cards` : `${each.ownerName}, ${each.name}`,
        ])}
        choose={(id) => setPicked({ id, over: selection })}
      />
    </label>
  );
  return { bundles, settled, end, choice };
}
