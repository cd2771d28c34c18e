/** Which of the two cost methods a switch uses. */
import type { CostMethod } from './common';
import type { Switch } from './switch';

/** The switch's own path cost method, else the design's. */
export const methodOf = (design: { readonly pathCost: CostMethod }, sw: Pick<Switch, 'pathCost'>): CostMethod =>
  sw.pathCost ?? design.pathCost;
