import { panel, type Panel } from '../manifest';
import { BridgePriority } from './BridgePriority';
import { PairOfRoots } from './PairOfRoots';
import { WhyLink } from './WhyLink';
import { WhyPort } from './WhyPort';
import { WhyRoot } from './WhyRoot';

/** Why things are as they are, and the priorities that decide it. */
export const PANELS: readonly Panel[] = [
  panel('switch', 'why', ({ sw }) => <WhyRoot id={sw.id} />),
  panel('switch', 'tuning', BridgePriority),
  panel('port', 'why', ({ sw, port }) => <WhyPort id={sw.id} port={port.id} />),
  panel('bundle', 'why', ({ bundle }) => <WhyPort id={bundle.switch} port={bundle.id} />),
  panel('link', 'why', WhyLink),
  panel('several', 'here', PairOfRoots, 'Root'),
];
