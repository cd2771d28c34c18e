'use client';
/** Block here instead, or carry the frames here: ways to get there, each shown on the map before it is taken. */
import Button from '@mui/material/Button';
import { useEffect, useRef, useState } from 'react';
import { editAll } from '../../core/design/edit';
import { treesName } from '../../core/design/ids';
import type { Design } from '../../core/design/schema';
import type { Proposal, Wish } from '../../core/study/steer';
import { movedEnds } from '../../core/tree/moved';
import { TextButton } from '../frame/TextButton';
import { useWorkbench, useWorkbenchStore } from '../state/context';
import { movedOf } from '../state/moved';
import { solvedOf } from '../state/revisions';
import { startSearch, type Search } from '../state/steering';
import { counted } from '../words/units';
import styles from './inspector.module.css';

type Stage =
  | { readonly is: 'idle' }
  | { readonly is: 'busy'; readonly share: number }
  | { readonly is: 'refused'; readonly why: string }
  | { readonly is: 'found'; readonly proposals: readonly Proposal[]; readonly of: Design };

export function SteerHere({ wish }: { readonly wish: Wish }) {
  const store = useWorkbenchStore();
  const trees = useWorkbench((state) => state.shownTrees);
  const viewing = useWorkbench((state) => state.viewing !== null);
  const [stage, setStage] = useState<Stage>({ is: 'idle' });
  const search = useRef<Search | null>(null);
  useEffect(() => () => search.current?.stop(), []);
  const go = async () => {
    const { design } = store.getState();
    search.current?.stop();
    setStage({ is: 'busy', share: 0 });
    const mine = startSearch(design, wish, trees, (share) => setStage((now) => (now.is === 'busy' ? { is: 'busy', share } : now)));
    search.current = mine;
    const found = await mine.found;
    if (search.current !== mine) return; // stopped, or another one has begun
    setStage(found.ok ? { is: 'found', proposals: found.value, of: design } : { is: 'refused', why: found.error });
  };
  const stop = () => {
    search.current?.stop();
    search.current = null;
    setStage({ is: 'idle' });
  };
  return (
    <section className={styles.section} aria-label="Steer">
      <h3>{wish.wants === 'block' ? 'Block here instead' : 'Carry the frames here'}</h3>
      {stage.is === 'busy' ? (
        <p className={styles.hint} role="status">
          Trying settings in the solver, {Math.round(stage.share * 100)} %… <TextButton onClick={stop}>cancel</TextButton>
        </p>
      ) : (
        <Button variant="outlined" disabled={trees.length === 0 || viewing} onClick={() => void go()}>
          {wish.wants === 'block' ? 'Propose ways to block here' : 'Propose ways to use this link'}
        </Button>
      )}
      {stage.is === 'idle' && <p className={styles.hint}>In {treesName(trees)}: changes of one or two settings, each tried before it is proposed.</p>}
      {stage.is === 'refused' && <p className={styles.fault} role="alert">{stage.why}</p>}
      {stage.is === 'found' && <Proposals proposals={stage.proposals} of={stage.of} done={() => setStage({ is: 'idle' })} />}
    </section>
  );
}

/** What a proposal costs, in words: `1 setting; 8 other ends move; an access switch becomes root`. */
export const proposalText = ({ settings, others, weakRoot }: Proposal): string =>
  [counted(settings, 'setting'), others.length === 0 ? 'nothing else moves' : counted(others.length, 'other end moves', 'other ends move'), ...(weakRoot ? ['an access switch becomes root'] : [])].join('; ');

function Proposals({ proposals, of, done }: { readonly proposals: readonly Proposal[]; readonly of: Design; readonly done: () => void }) {
  const store = useWorkbenchStore();
  const stale = useWorkbench((state) => state.viewing === null && state.design !== of);
  const show = (proposal: Proposal) => {
    store.getState().look(null);
    const { solution, revision, look } = store.getState();
    const edited = editAll(of, proposal.commands);
    if (!edited.ok || !solution) return;
    const label = 'the design with this proposal';
    const there = solvedOf(edited.value.design, revision, label);
    if (there.solution) look({ ...there, moved: movedOf(label, movedEnds(solution, there.solution), 'comparison') });
  };
  const take = (proposal: Proposal) => {
    store.getState().look(null);
    if (store.getState().act(...proposal.commands) === null) done();
  };
  if (stale) return <p className={styles.hint}>The design has changed since: look for ways again.</p>;
  return (
    <ol className={styles.proposals} aria-label="Proposals">
      {proposals.map((proposal, i) => (
        <li key={proposal.sentence}>
          {proposal.sentence}
          <span className={styles.note}>
            {proposalText(proposal)} <TextButton onClick={() => show(proposal)} aria-label={`show proposal ${i + 1} on the map`}>show</TextButton>{' '}
            <TextButton onClick={() => take(proposal)} aria-label={`take proposal ${i + 1}`}>take it</TextButton>
          </span>
        </li>
      ))}
    </ol>
  );
}
