'use client';
/** Several wishes at once: what should block and what should carry, and ways that fulfil all of it. */
import Button from '@mui/material/Button';
import { treesName, type TreeId } from '../../../core/model/ids';
import { sameWish, wishText, type Wish } from '../../../core/analysis/steering/wishes';
import { TextButton } from '../../ui/TextButton';
import { useWorkbench } from '../../state/context';
import type { Item } from '../../state/selection';
import { askSteering } from '../../state/questions';
import { steeringOffer } from '../shared/Offers';
import { SearchStatus } from '../shared/SearchStatus';
import styles from '../shared/steering.module.css';
import { useAskOnDemand } from '../../state/ask';
import { mayEdit } from '../../state/looking';

export function WishesTable() {
  const { list, trees, asked } = useWorkbench((state) => state.wishes);
  const shown = useWorkbench((state) => state.shownTrees);
  if (list.length === 0) {
    return (
      <p className={styles.hint}>
        Nothing is wished for yet. Pull a frayed end on the map to the link that should block instead; or select a port
        or a link and add it here, as many as belong together.
      </p>
    );
  }
  // Other wishes or other trees: what was found for the former ones goes.
  return (
    <Wishes key={JSON.stringify([asked, list, trees ?? shown])} list={list} trees={trees ?? shown} ask={asked > 0} />
  );
}

function Wishes({
  list,
  trees,
  ask,
}: {
  readonly list: readonly Wish[];
  readonly trees: readonly TreeId[];
  readonly ask: boolean;
}) {
  const design = useWorkbench((state) => state.design);
  const viewing = !useWorkbench(mayEdit);
  const wish = useWorkbench((state) => state.wish);
  const goTo = useWorkbench((state) => state.goTo);
  const own = useWorkbench((state) => state.wishes.trees !== null);
  const search = useAskOnDemand(ask ? askSteering(design, list, trees) : null);
  return (
    <div className={styles.room}>
      <section aria-label="Wishes">
        <h3>In {treesName(trees)}</h3>
        <ul className={styles.wishes}>
          {list.map((each) => (
            <li key={wishText(design, each)}>
              <TextButton onClick={() => goTo(placeOf(each))}>{wishText(design, each)}</TextButton>
              <TextButton
                does="remove"
                aria-label={`remove: ${wishText(design, each)}`}
                onClick={() =>
                  wish(
                    list.filter((other) => !sameWish(other, each)),
                    own ? trees : null,
                  )
                }
              >
                remove
              </TextButton>
            </li>
          ))}
        </ul>
        <div className={styles.row}>
          <Button
            variant="outlined"
            disabled={viewing || search.status.kind === 'busy'}
            onClick={() => search.go(askSteering(design, list, trees))}
          >
            Propose ways
          </Button>
          <TextButton does="remove" onClick={() => wish([])}>
            clear all
          </TextButton>
          {own && (
            <TextButton does="edit" onClick={() => wish(list)}>
              for the trees shown instead
            </TextButton>
          )}
        </div>
      </section>
      <section aria-label="Ways to fulfil the wishes">
        {search.status.kind === 'idle' && (
          <p className={styles.hint}>
            Costs, port priorities and bridge priorities are tried in the solver until all wishes hold; what takes the
            fewest settings and changes the fewest other ports comes first.
          </p>
        )}
        <SearchStatus search={search} offer={steeringOffer(design)} />
      </section>
    </div>
  );
}

const placeOf = (wish: Wish): Item =>
  wish.wants === 'block' ? { kind: 'port', switch: wish.switch, port: wish.port } : { kind: 'link', link: wish.link };
