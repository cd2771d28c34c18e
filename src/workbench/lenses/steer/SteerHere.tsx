'use client';
/** Block here instead, or carry the frames here: ways to get there, each shown on the map before it is taken. */
import Button from '@mui/material/Button';
import { treesName } from '../../../core/model/ids';
import type { Proposal } from '../../../core/analysis/steering/steer';
import { sameWish, type Wish } from '../../../core/analysis/steering/wishes';
import { TextButton } from '../../ui/TextButton';
import { useWorkbench } from '../../state/context';
import { askSteering } from '../../state/questions';
import { steeringOffer } from '../shared/Offers';
import { SearchStatus } from '../shared/SearchStatus';
import { useAskOnDemand } from '../../state/ask';
import styles from '../../ui/panel.module.css';
import { mayEdit } from '../../state/looking';

export function SteerHere({ wish }: { readonly wish: Wish }) {
  const trees = useWorkbench((state) => state.shownTrees);
  const viewing = !useWorkbench(mayEdit);
  const design = useWorkbench((state) => state.design);
  const search = useAskOnDemand<Proposal[]>();
  return (
    <section className={styles.section} aria-label="Steer">
      <h3>{wish.wants === 'block' ? 'Block here instead' : 'Carry the frames here'}</h3>
      {search.status.kind !== 'busy' && (
        <div className={styles.buttons}>
          <Button
            variant="outlined"
            disabled={trees.length === 0 || viewing}
            onClick={() => search.go(askSteering(design, [wish], trees))}
          >
            {wish.wants === 'block' ? 'Propose ways to block here' : 'Propose ways to use this link'}
          </Button>
          <AddWishes wishes={[wish]} />
        </div>
      )}
      {search.status.kind === 'idle' && (
        <p className={styles.hint}>
          In {treesName(trees)}: each set of changes is tried in the solver before it is proposed.
        </p>
      )}
      <SearchStatus search={search} offer={steeringOffer(design)} />
    </section>
  );
}

/** Puts wishes on the list in the drawer, to be fulfilled together. */
export function AddWishes({ wishes }: { readonly wishes: readonly Wish[] }) {
  const { list, trees } = useWorkbench((state) => state.wishes);
  const wish = useWorkbench((state) => state.wish);
  const openDrawer = useWorkbench((state) => state.openDrawer);
  const fresh = wishes.filter((each) => !list.some((other) => sameWish(other, each)));
  if (fresh.length === 0) return <TextButton onClick={() => openDrawer('wishes')}>in the list of wishes</TextButton>;
  const add = () => {
    wish([...list, ...fresh], trees);
    openDrawer('wishes');
  };
  return (
    <TextButton does="edit" onClick={add}>
      add to the wishes
    </TextButton>
  );
}
