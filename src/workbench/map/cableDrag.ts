'use client';
/** Cabling by pointer: from a port, or from a switch, to another; or an end of a cable to where it should be. */
import { useReactFlow } from '@xyflow/react';
import { createContext, useCallback, useContext, useState, type PointerEvent as ReactPointerEvent } from 'react';
import type { Command } from '../../core/edit/commands';
import { FreshNames, freshCable, freshSwitch, type PlugWish } from '../../core/edit/fresh';
import type { LinkId, PortId, SwitchId } from '../../core/model/ids';
import { pluggedIn } from '../../core/model/plugs';
import { portSchema, type Design } from '../../core/model/document';
import { useWorkbenchStore } from '../state/context';
import type { Point } from './geometry';
import { pull } from './pull';
import { mayEdit } from '../state/looking';

/** What is held: an end to be, or the end of a cable that is there. */
export interface CableGrip {
  readonly switch: SwitchId;
  readonly port: PortId | null;
  /** The cable whose end is moved. */
  readonly link: LinkId | null;
}

/** A cable under the hand: from a place on the map to the pointer. */
export interface CableHeld {
  readonly grip: CableGrip;
  readonly from: Point;
  readonly to: Point;
  readonly over: SwitchId | null;
}

interface CableDrag {
  readonly held: CableHeld | null;
  readonly start: (grip: CableGrip, event: ReactPointerEvent) => void;
}

const CableDragContext = createContext<CableDrag>({ held: null, start: () => undefined });
export const CableDragProvider = CableDragContext;
export const useCableDrag = (): CableDrag => useContext(CableDragContext);

/** Where the pointer is: over which switch and which of its ports. */
function targetAt(x: number, y: number): { switch: SwitchId; port: PortId | null } | null {
  const element = document.elementFromPoint(x, y);
  const sw = element?.closest<HTMLElement>('[data-switch]')?.dataset.switch;
  if (sw === undefined) return null;
  return {
    switch: sw as SwitchId,
    port: (element?.closest<HTMLElement>('[data-plug]')?.dataset.plug as PortId | undefined) ?? null,
  };
}

/** The state of a cable under the hand, and what starts one; `opened` gives the place in the design of what is drawn. */
export function useCableHand(opened: (point: Point) => Point): CableDrag {
  const store = useWorkbenchStore();
  const flow = useReactFlow();
  const [held, setHeld] = useState<CableHeld | null>(null);
  const start = useCallback(
    (grip: CableGrip, event: ReactPointerEvent) => {
      if (event.button !== 0 || !mayEdit(store.getState())) return;
      event.stopPropagation();
      const from = flow.screenToFlowPosition({ x: event.clientX, y: event.clientY });
      pull(event, {
        move: (move) =>
          setHeld({
            grip,
            from,
            to: flow.screenToFlowPosition({ x: move.clientX, y: move.clientY }),
            over: targetAt(move.clientX, move.clientY)?.switch ?? null,
          }),
        drop: (up) => {
          const target = targetAt(up.clientX, up.clientY);
          const { design, act, select, layout } = store.getState();
          // A new switch needs a place of its own: only where switches stand at theirs.
          const inMap =
            layout === 'placed' && document.elementFromPoint(up.clientX, up.clientY)?.closest('.react-flow') != null;
          const made = dropped(
            design,
            grip,
            target,
            inMap ? opened(flow.screenToFlowPosition({ x: up.clientX, y: up.clientY })) : null,
          );
          if (made && act(...made.commands) === null) select({ kind: 'link', link: made.link });
        },
        end: () => setHeld(null),
      });
    },
    [store, flow, opened],
  );
  return { held, start };
}

/** What letting go does: a new cable, a moved end, or on empty paper a new switch with its cable; null for nothing. */
export function dropped(
  design: Design,
  grip: CableGrip,
  target: { switch: SwitchId; port: PortId | null } | null,
  paper: Point | null,
): { readonly link: LinkId; readonly commands: Command[] } | null {
  const portAt = (sw: SwitchId, port: PortId | null) =>
    design.switches.find((s) => s.id === sw)?.ports.find((p) => p.id === port);
  const taken = pluggedIn(design);
  const speed =
    portAt(grip.switch, grip.port)?.speed ?? portAt(target?.switch ?? grip.switch, target?.port ?? null)?.speed ?? 1000;
  const free =
    target && target.port !== null && taken(target.switch, target.port)
      ? { switch: target.switch, port: null }
      : target;
  if (grip.link) {
    if (!free) return null;
    const link = design.links.find((l) => l.id === grip.link);
    if (!link) return null;
    const side = link.a.switch === grip.switch && link.a.port === grip.port ? 'a' : 'b';
    if (target && target.switch === grip.switch && (target.port === grip.port || target.port === null)) return null;
    const commands: Command[] = [];
    let port = free.port;
    if (port === null) {
      const own = design.switches.find((sw) => sw.id === free.switch)?.ports ?? [];
      port = own.find((each) => each.up && each.speed === speed && !taken(free.switch, each.id))?.id ?? null;
      if (port === null) {
        const added = portSchema.parse({ ...new FreshNames(design).port(own, null), speed });
        commands.push({ do: 'add-port', switch: free.switch, port: added });
        port = added.id;
      }
    }
    commands.push({ do: 'set-link', link: link.id, [side]: { switch: free.switch, port } });
    return { link: link.id, commands };
  }
  const from: PlugWish = { switch: grip.switch, port: grip.port ?? undefined };
  if (free) {
    if (free.switch === grip.switch && (free.port === null || free.port === grip.port)) return null;
    return freshCable(design, from, { switch: free.switch, port: free.port ?? undefined }, speed);
  }
  if (!paper) return null;
  const fresh = freshSwitch(design, { x: Math.round(paper.x), y: Math.round(paper.y) });
  if (fresh.command.do !== 'add-switch') return null;
  const cable = freshCable(
    { ...design, switches: [...design.switches, fresh.command.switch] },
    from,
    { switch: fresh.id },
    speed,
  );
  return { link: cable.link, commands: [fresh.command, ...cable.commands] };
}
