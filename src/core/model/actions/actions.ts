/** The actions of scenarios: one line each. */
import { z } from '../../base/zod';
import { addBundle } from './addBundle';
import { addLink } from './addLink';
import { addSwitch } from './addSwitch';
import { bridgePriority } from './bridgePriority';
import { bundleMode } from './bundleMode';
import { bundlePorts } from './bundlePorts';
import type { ActionKind } from './kind';
import { linkDown } from './linkDown';
import { linkUp } from './linkUp';
import { oneWay } from './oneWay';
import { portCost } from './portCost';
import { removeBundle } from './removeBundle';
import { speak } from './speak';
import { switchDown } from './switchDown';
import { switchUp } from './switchUp';

const KINDS = [
  linkDown,
  linkUp,
  oneWay,
  switchDown,
  switchUp,
  bridgePriority,
  speak,
  portCost,
  addLink,
  addBundle,
  bundlePorts,
  removeBundle,
  bundleMode,
  addSwitch,
] as const;

type SchemasOf<T extends readonly { readonly schema: unknown }[]> = { [I in keyof T]: T[I]['schema'] };
const schemas = KINDS.map((kind) => kind.schema) as unknown as SchemasOf<typeof KINDS>;

export const actionSchema = z.discriminatedUnion('do', schemas);
export type Action = z.output<typeof actionSchema>;
/** An action without its time. */
export type Undated = Action extends infer A ? (A extends Action ? Omit<A, 'at'> : never) : never;

const byName = new Map<string, ActionKind>(
  KINDS.map((kind) => [kind.schema.shape.do.value, kind as unknown as ActionKind]),
);

/** What an action is; throws where there is no such kind, which no schema lets through. */
export function actionKind(action: Pick<Action, 'do'>): ActionKind {
  const kind = byName.get(action.do);
  if (!kind) throw new Error(`no action ${action.do}`);
  return kind;
}
