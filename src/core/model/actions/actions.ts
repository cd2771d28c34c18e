/** The actions of scenarios: one line each. */
import { byName, schemaOfAny } from '../../base/kinds';
import type { z } from '../../base/zod';
import { addBundle } from './addBundle';
import { addLink } from './addLink';
import { addSwitch } from './addSwitch';
import { stackMemberDown } from './stackMemberDown';
import { stackMemberUp } from './stackMemberUp';
import { bridgePriority } from './bridgePriority';
import { bundleMode } from './bundleMode';
import { bundlePorts } from './bundlePorts';
import { change } from './change';
import type { ActionFacts } from './kind';
import { hostBpdus } from './hostBpdus';
import { keepaliveDown } from './keepaliveDown';
import { keepaliveUp } from './keepaliveUp';
import { linkDown } from './linkDown';
import { linkUp } from './linkUp';
import { loseBpdus } from './loseBpdus';
import { oneWay } from './oneWay';
import { openPort } from './openPort';
import { portCost } from './portCost';
import { portDown } from './portDown';
import { portUp } from './portUp';
import { portSpeaks } from './portSpeaks';
import { removeBundle } from './removeBundle';
import { speak } from './speak';
import { stackCableDown } from './stackCableDown';
import { stackCableUp } from './stackCableUp';
import { switchDown } from './switchDown';
import { switchUp } from './switchUp';

const KINDS = [
  linkDown,
  linkUp,
  oneWay,
  loseBpdus,
  switchDown,
  switchUp,
  stackMemberDown,
  stackMemberUp,
  stackCableDown,
  stackCableUp,
  keepaliveDown,
  keepaliveUp,
  bridgePriority,
  speak,
  portSpeaks,
  portCost,
  portDown,
  portUp,
  addLink,
  addBundle,
  bundlePorts,
  removeBundle,
  bundleMode,
  addSwitch,
  hostBpdus,
  openPort,
  change,
] as const;

export const actionSchema = schemaOfAny(KINDS);
export type Action = z.output<typeof actionSchema>;
/** An action without its time. */
export type Undated = Action extends infer A ? (A extends Action ? Omit<A, 'at'> : never) : never;

const kinds = byName<ActionFacts<Action>>(KINDS);

/** What an action is; throws where there is no such kind, which no schema lets through. */
export function actionKind(action: Pick<Action, 'do'>): ActionFacts<Action> {
  const kind = kinds.get(action.do);
  if (!kind) throw new Error(`no action ${action.do}`);
  return kind;
}

/** Whether an action changes more of the network than power, signal, costs and priorities. */
export const isTurn = (action: Action): boolean => actionKind(action).turns?.(action) ?? false;
