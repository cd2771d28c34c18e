/** Which of the two cost methods a switch uses. */
import type { CostMethod, Design, Switch } from './document';

/** The switch's own path cost method, else the design's. */
export const methodOf = (design: Pick<Design, 'pathCost'>, sw: Pick<Switch, 'pathCost'>): CostMethod =>
  sw.pathCost ?? design.pathCost;
