import { designSchema } from '../../model/document';
import { command } from '../command';
import { say } from '../phrase';

const { name, pathCost } = designSchema.shape;

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
] as const;
