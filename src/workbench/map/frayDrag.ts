'use client';
/** A block moved by hand: a frayed end pulled to the end of another link, which should block instead. */
import { useReactFlow } from '@xyflow/react';
import { createContext, useCallback, useContext, useState, type PointerEvent as ReactPointerEvent } from 'react';
import type { LinkId, TreeId } from '../../core/model/ids';
import type { Design } from '../../core/model/document';
import type { Wish } from '../../core/analysis/steering/wishes';
import { useWorkbenchStore } from '../state/context';
import type { Point } from './geometry';
import { pull } from './pull';

/** One end of a link. */
export interface FrayEnd {
  readonly link: LinkId;
  readonly side: 'a' | 'b';
}

/** The end that is pulled, and the trees that block there, by their index in the solution. */
export interface FrayGrip extends FrayEnd {
  readonly treeIndices: readonly number[];
}

/** A frayed end under the hand. */
export interface FrayHeld {
  readonly from: Point;
  readonly to: Point;
  /** Where it would block if it were let go, in words. */
  readonly says: string | null;
}

type StartFray = (grip: FrayGrip, event: ReactPointerEvent) => void;

// Only what starts a pull goes down to the links: they must not be drawn again while the hand moves.
const FrayDragContext = createContext<StartFray>(() => undefined);
export const FrayDragProvider = FrayDragContext;
export const useFrayDrag = (): StartFray => useContext(FrayDragContext);

/** The link under the pointer and the end of it that is nearer. */
function endAt(x: number, y: number): FrayEnd | null {
  const group = document.elementFromPoint(x, y)?.closest<SVGElement>('[data-link]');
  const { link, run } = group?.dataset ?? {};
  const [x1, y1, x2, y2] = (run ?? '').split(' ').map(Number);
  // The run is written in the link's own coordinates.
  const matrix = group instanceof SVGGraphicsElement ? group.getScreenCTM()?.inverse() : null;
  if (link === undefined || y2 === undefined || !matrix) return null;
  const at = new DOMPoint(x, y).matrixTransform(matrix);
  return {
    link: link as LinkId,
    side: Math.hypot(at.x - x1!, at.y - y1!) <= Math.hypot(at.x - x2!, at.y - y2) ? 'a' : 'b',
  };
}

/** The state of a frayed end under the hand, and what starts pulling one. */
export function useFrayHand(): { readonly held: FrayHeld | null; readonly start: StartFray } {
  const store = useWorkbenchStore();
  const flow = useReactFlow();
  const [held, setHeld] = useState<FrayHeld | null>(null);
  const start = useCallback(
    (grip: FrayGrip, event: ReactPointerEvent) => {
      if (event.button !== 0) return;
      const from = flow.screenToFlowPosition({ x: event.clientX, y: event.clientY });
      const over = ({ clientX, clientY }: PointerEvent) => {
        const to = flow.screenToFlowPosition({ x: clientX, y: clientY });
        return { to, end: endAt(clientX, clientY) };
      };
      pull(event, {
        move: (move) => {
          const { to, end } = over(move);
          const wishes = end && wishesOf(store.getState().design, grip, end);
          setHeld({ from, to, says: wishes && saysOf(store.getState().design, wishes) });
        },
        drop: (up) => {
          const { end } = over(up);
          const { design, solution, askFor, select } = store.getState();
          const wishes = end && wishesOf(design, grip, end);
          const trees = grip.treeIndices.flatMap((index): TreeId[] =>
            solution?.trees[index] ? [solution.trees[index].id] : [],
          );
          if (!wishes || trees.length === 0) return;
          const [block] = wishes;
          if (block?.wants === 'block') select({ kind: 'port', switch: block.switch, port: block.port });
          askFor(wishes, trees);
        },
        end: () => setHeld(null),
      });
    },
    [store, flow],
  );
  return { held, start };
}

/** What letting go means: block there, and no longer on the link that it was pulled from; null where it blocks there already. */
export function wishesOf(design: Design, grip: FrayEnd, end: FrayEnd): Wish[] | null {
  if (grip.link === end.link && grip.side === end.side) return null;
  const at = design.links.find((link) => link.id === end.link)?.[end.side];
  if (!at) return null;
  const block: Wish = { wants: 'block', ...at };
  return grip.link === end.link ? [block] : [block, { wants: 'carry', link: grip.link }];
}

function saysOf(design: Design, [block]: readonly Wish[]): string | null {
  if (block?.wants !== 'block') return null;
  return `block at ${design.switches.find((sw) => sw.id === block.switch)?.name ?? block.switch} port ${block.port}`;
}
