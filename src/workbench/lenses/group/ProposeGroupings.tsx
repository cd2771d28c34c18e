'use client';
/** Ways to group the VLANs, searched for in a worker, seen on the map and taken in one step. */
import Button from '@mui/material/Button';
import type { GroupingProposal } from '../../../core/analysis/regions/grouping';
import { useWorkbench } from '../../state/context';
import { askGrouping } from '../../state/questions';
import { percentText } from '../shared/loadRows';
import type { Offer } from '../shared/Offers';
import { SearchStatus } from '../shared/SearchStatus';
import { useAskOnDemand } from '../../state/ask';
import { TextButton } from '../../ui/TextButton';
import styles from '../shared/group.module.css';
import { mayEdit } from '../../state/looking';

/** A grouping with what it brings: `a switch keeps 3 trees instead of 7; 13 BPDUs a second instead of 61.5; …`. */
export const groupingOffer = ({
  commands,
  sentence,
  loads: [before, after],
  cost: [was, is],
}: GroupingProposal): Offer => ({
  commands,
  sentence,
  price: [
    `trees a switch keeps ${was.trees} to ${is.trees}`,
    `BPDUs a second ${rate(was.sent)} to ${rate(is.sent)}`,
    `most loaded link ${percentText((before.peak?.share ?? 0) * 100)} to ${percentText((after.peak?.share ?? 0) * 100)}`,
    `idle links ${before.idle.length} to ${after.idle.length}`,
  ].join('; '),
});

const rate = (value: number): string => String(Math.round(value * 10) / 10);

export function ProposeGroupings() {
  const viewing = !useWorkbench(mayEdit);
  const design = useWorkbench((state) => state.design);
  const search = useAskOnDemand<GroupingProposal[]>();
  return (
    <section className={styles.propose} aria-label="Propose a grouping">
      <h3>Propose a grouping</h3>
      <div className={styles.line}>
        <Button
          variant="outlined"
          disabled={viewing || search.status.kind === 'busy'}
          onClick={() => search.go(askGrouping(design))}
        >
          Propose from loads and topology
        </Button>
        {search.status.kind === 'found' && (
          <TextButton does="plain" onClick={search.clear}>
            clear
          </TextButton>
        )}
      </div>
      <SearchStatus search={search} offer={groupingOffer} />
      {search.status.kind === 'idle' && (
        <p className={styles.soft}>
          Tries the strongest switches as roots, assigns each VLAN where the most loaded link gets the least, and
          compares one instance with two and more. Loads are set in the table of VLANs.
        </p>
      )}
    </section>
  );
}
