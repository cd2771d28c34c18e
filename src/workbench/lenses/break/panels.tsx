import { panel, type Panel } from '../manifest';
import { BreakHost, BreakLink, BreakPort, BreakSwitch } from './BreakHere';
import { WhyInstant } from './WhyInstant';

/** What may happen to things, and what they are at the instant shown. */
export const PANELS: readonly Panel[] = [
  panel('switch', 'here', BreakSwitch, 'Break'),
  panel('link', 'here', BreakLink, 'Break'),
  panel('port', 'here', ({ sw, port }) => <WhyInstant id={sw.id} port={port.id} />, 'Break'),
  panel('port', 'here', ({ sw, port }) => <BreakPort id={sw.id} port={port.id} />, 'Break'),
  panel('host', 'here', BreakHost, 'Break'),
  panel('bundle', 'here', ({ bundle }) => <WhyInstant id={bundle.switch} port={bundle.id} />, 'Break'),
];
