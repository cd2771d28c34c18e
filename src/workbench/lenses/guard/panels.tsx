import { panel, type Panel } from '../manifest';
import { PortGuards } from './PortGuards';
import { SwitchGuards } from './SwitchGuards';

/** Guards of ports and bundles, and what a switch sets for its edge ports. */
export const PANELS: readonly Panel[] = [
  panel('switch', 'here', ({ sw }) => <SwitchGuards switches={[sw]} />, 'Guard'),
  panel('port', 'here', ({ sw, port }) => <PortGuards ports={[{ switch: sw.id, port }]} />, 'Guard'),
  panel('bundle', 'here', ({ bundle }) => <PortGuards ports={[{ switch: bundle.switch, port: bundle }]} />, 'Guard'),
  panel(
    'several',
    'here',
    ({ chosen: { switches, ports } }) => (
      <>
        {switches.length > 0 && <SwitchGuards switches={switches} />}
        {ports.length > 0 && <PortGuards ports={ports} />}
      </>
    ),
    'Guard',
  ),
];
