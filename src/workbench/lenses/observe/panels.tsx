/** What the Observe view adds to the inspector. */
import { panel, type Panel } from '../manifest';
import { AsTold } from './AsTold';

export const PANELS: readonly Panel[] = [
  panel('switch', 'here', ({ sw }) => <AsTold id={sw.id} />, 'Observe'),
  panel('port', 'here', ({ sw, port }) => <AsTold id={sw.id} port={port.id} />, 'Observe'),
  panel('bundle', 'here', ({ bundle }) => <AsTold id={bundle.switch} port={bundle.id} />, 'Observe'),
];
