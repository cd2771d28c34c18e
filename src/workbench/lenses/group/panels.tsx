import { panel, type Panel } from '../manifest';
import { RegionSection } from './RegionSection';

/** MST configuration of the selected switches. */
export const PANELS: readonly Panel[] = [
  panel('switch', 'here', ({ sw }) => <RegionSection switches={[sw]} />, 'Group'),
  panel(
    'several',
    'here',
    ({ chosen: { switches } }) => (switches.length > 0 ? <RegionSection switches={switches} /> : null),
    'Group',
  ),
];
