/** The tour: five things to do, each known to be done by what the workbench shows then. */
import { islandRoots } from '../../core/tree/explain/election';
import { treeOf } from '../../core/tree/settled';
import { switchesIn } from '../state/selection';
import type { Workbench } from '../state/store';

interface Step {
  readonly does: (state: Workbench) => string;
  /** Whether it is done; `begun` is the state in which the step began. */
  readonly done: (state: Workbench, begun: Workbench) => boolean;
}

/** The switch that is root of the first tree shown. */
function rootOf({ solution, shownTrees }: Workbench): { readonly id: string; readonly name: string } | null {
  const tree = solution && shownTrees[0] ? treeOf(solution, shownTrees[0]) : undefined;
  const root = solution && tree ? islandRoots(solution.network, tree)[0] : undefined;
  const sw = root === undefined ? undefined : solution!.network.switches[root];
  return sw ? { id: sw.id, name: sw.name ?? sw.id } : null;
}

/** A strong switch that is not root yet. */
function wanted(state: Workbench): string {
  const root = rootOf(state)?.id;
  const strong = state.design.switches.find((sw) => sw.tier === 'core' && sw.id !== root);
  return strong ? (strong.name ?? strong.id) : 'another switch';
}

export const STEPS: readonly Step[] = [
  {
    does: (state) =>
      `The knot marks the root of a tree. Click the switch that wears it: ${rootOf(state)?.name ?? 'none yet'}.`,
    done: (state) => switchesIn(state.selection).some((id) => id === rootOf(state)?.id),
  },
  {
    does: (state) => `A strong switch should be root. Click ${wanted(state)}, then press P.`,
    done: (state, begun) => rootOf(state) !== null && rootOf(state)?.id !== rootOf(begun)?.id,
  },
  {
    does: () => 'Tick a second tree on the left: both are drawn side by side.',
    done: (state) => state.shownTrees.length > 1,
  },
  {
    does: () => 'Open the Break view and choose a scenario below the map: it runs at once.',
    done: (state) => state.lens === 'Break' && (state.clocks.get('Break')?.ready() ?? false),
  },
  {
    does: () => 'Press Ctrl+K and type a few letters: everything that can be done, and every switch, is found there.',
    done: (state) => state.dialog === 'palette',
  },
];

/** Whether the page was opened to take the tour. */
export const tourInUrl = (): boolean => new URLSearchParams(globalThis.location.search).has('tour');
