import { designSchema, traitsOf } from '../../model/document';
import { command } from '../command';
import { say } from '../phrase';

const { name, pathCost, mode } = designSchema.shape;

export const designCommands = [
  command(
    'rename-design',
    { name },
    {
      apply: (draft, { name: to }) => void (draft.name = to),
      say: ({ design }, { name: to }) => say('name: ', design.name, ` to ${to}`),
    },
  ),
  command(
    'set-cost-method',
    { method: pathCost.unwrap() },
    {
      apply: (draft, { method }) => void (draft.pathCost = method),
      say: ({ design }, { method }) => say('path cost method: ', design.pathCost, ` to ${method}`),
    },
  ),
  /** What new switches run; `set-switch` changes those that are there. */
  command(
    'set-mode',
    { mode: mode.unwrap() },
    {
      apply: (draft, { mode: to }) => void (draft.mode = to),
      say: (_, { mode: to }) => say('spanning tree mode of new switches: ', traitsOf(to).name),
    },
  ),
] as const;
