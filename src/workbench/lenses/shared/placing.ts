/** Placing roots, standbys and switches that should never be root, in several trees at once. */
import type { SwitchId, TreeId } from '../../../core/model/ids';
import { editAll } from '../../../core/edit/edit';
import { forVlansToCome } from '../../../core/analysis/roots/toCome';
import { placeAll, placingText, type Placement } from '../../../core/analysis/roots/placing';
import { switchesIn } from '../../state/selection';
import type { Workbench } from '../../state/store';

const WORDS: Readonly<Record<Placement, string>> = { root: 'the root', standby: 'the standby', never: 'never root' };

/** Places switches in trees as one step, and says what came of it. */
export function placeIn(
  state: Workbench,
  trees: readonly TreeId[],
  switches: readonly SwitchId[],
  as: Placement,
): void {
  const { solution, act, advise } = state;
  if (!solution || trees.length === 0) return;
  if (switches.length === 0) return advise({ text: `Select the switch that should be ${WORDS[as]}.`, remedy: null });
  if (as !== 'never' && switches.length > 1)
    return advise({ text: `One switch at a time can be ${WORDS[as]}; ${switches.length} are selected.`, remedy: null });
  const placings = placeAll(solution.network, trees, switches, as);
  const commands = placings.flatMap((placing) => (placing.done ? placing.commands : []));
  const remedies = placings.flatMap((placing) => (!placing.done && placing.instead ? [placing.instead] : []));
  const refused = commands.length > 0 ? act(...commands) : null;
  const edited = refused === null ? editAll(solution.network.design, commands) : null;
  const toCome = edited?.ok
    ? forVlansToCome(
        edited.value.design,
        solution.trees.map((tree) => tree.id),
        switches,
        trees[0]!,
      )
    : [];
  const past = [...new Set(placings.flatMap((placing) => (placing.done ? placing.past : [])))];
  const beaten =
    past.length > 0 && as !== 'never'
      ? ` It had to get past ${past.slice(0, 4).join(', ')}${past.length > 4 ? ` and ${past.length - 4} more` : ''}.`
      : '';
  // What the last change did is no part of what is said of this one.
  if (commands.length === 0) state.forgetMoved();
  const [first, ...more] = remedies;
  advise({
    text: refused ?? placingText(placings) + beaten,
    remedy: first
      ? {
          label: more.length > 0 ? `${first.label}, and alike in ${more.length} more` : first.label,
          commands: remedies.flatMap((remedy) => remedy.commands),
        }
      : toCome.length > 0
        ? { label: 'and for VLANs to come', commands: toCome }
        : null,
  });
}

/** Places the selected switches in the trees that are shown. */
export const placeSelected =
  (as: Placement) =>
  (state: Workbench): void =>
    placeIn(state, state.shownTrees, switchesIn(state.selection), as);
