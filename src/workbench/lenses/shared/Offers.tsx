'use client';
/** Sets of changes to choose from: each can be seen on the map before it is taken, and is taken as one step. */
import { editAll } from '../../../core/edit/edit';
import type { Command } from '../../../core/edit/commands';
import type { Design } from '../../../core/model/document';
import type { Proposal } from '../../../core/analysis/steering/steer';
import { movedEnds, movedVlans } from '../../../core/tree/moved';
import { Editable } from '../../ui/editable';
import { TextButton } from '../../ui/TextButton';
import { useWorkbench, useWorkbenchStore } from '../../state/context';
import { movedOf } from '../../state/moved';
import { solvedOf } from '../../state/revisions';
import { counted } from '../../../core/base/words';
import styles from './steering.module.css';
import { atPresent } from '../../state/looking';

/** What the map says it shows while a proposal is looked at. */
const PROPOSAL = 'the design with this proposal';

export interface Offer {
  readonly commands: readonly Command[];
  readonly sentence: string;
  /** What it costs or brings, in words. */
  readonly price: string;
}

/** What a way to steer costs: `1 setting; 8 other ports change; access switch lodge becomes root`. */
export function proposalText(design: Design, { settings, others, spills, weakRoots, weakWays }: Proposal): string {
  const named = (ids: Proposal['weakRoots']): string =>
    ids.map((id) => design.switches.find((sw) => sw.id === id)?.name ?? id).join(', ');
  return [
    counted(settings, 'setting'),
    others.length === 0
      ? 'nothing else changes'
      : `${counted(others.length, 'other port changes', 'other ports change')}${spills ? ', some in other trees' : ''}`,
    ...(weakRoots.length > 0 ? [`of the access switches ${named(weakRoots)} becomes root`] : []),
    ...(weakWays.length > 0 ? [`of the access switches ${named(weakWays)} comes to carry others’ frames`] : []),
  ].join('; ');
}

export const steeringOffer =
  (design: Design) =>
  (proposal: Proposal): Offer => ({
    commands: proposal.commands,
    sentence: proposal.sentence,
    price: proposalText(design, proposal),
  });

export function Offers({
  offers,
  of,
  done,
}: {
  readonly offers: readonly Offer[];
  readonly of: Design;
  readonly done: () => void;
}) {
  const store = useWorkbenchStore();
  const readOnly = useWorkbench((state) => state.readOnly);
  const stale = useWorkbench((state) => atPresent(state) && state.design !== of);
  const show = (offer: Offer) => {
    store.getState().look(null);
    const { solution, revision, look } = store.getState();
    const edited = editAll(of, offer.commands);
    if (!edited.ok || !solution) return;
    const there = solvedOf(edited.value.design, revision, PROPOSAL);
    const [ends, vlans] = [movedEnds(solution, there.solution), movedVlans(solution, there.solution)];
    look({ ...there, kind: 'proposal', moved: movedOf(PROPOSAL, ends, 'comparison', vlans) });
  };
  const take = (offer: Offer) => {
    store.getState().look(null);
    if (store.getState().act(...offer.commands) === null) done();
  };
  if (stale) return <p className={styles.hint}>The design has changed since: look for ways again.</p>;
  // A proposal is taken while it is looked at.
  return (
    <Editable value={!readOnly}>
      <ol className={styles.offers} aria-label="Proposals">
        {offers.map((offer, i) => (
          <li key={`${i} ${offer.sentence}`}>
            {offer.sentence}
            <span className={styles.price}>
              {offer.price}{' '}
              <TextButton onClick={() => show(offer)} aria-label={`show proposal ${i + 1} on the map`}>
                show
              </TextButton>{' '}
              <TextButton does="edit" onClick={() => take(offer)} aria-label={`take it, proposal ${i + 1}`}>
                take it
              </TextButton>
            </span>
          </li>
        ))}
      </ol>
    </Editable>
  );
}
