import { panel, type Panel } from '../manifest';
import { AllSettings } from './AllSettings';
import { CableTo } from './CableTo';
import { DesignPanel } from './DesignPanel';
import { GroupPanel } from './groups/GroupPanel';
import { HostPanel } from './HostPanel';
import { LinkPanel } from './LinkPanel';
import { PortList } from './PortList';
import { PortPanel } from './PortPanel';
import { SeveralPanel } from './SeveralPanel';
import { PairPanel } from './PairPanel';
import { StackPanel } from './StackPanel';
import { SwitchPanel } from './SwitchPanel';

/** What things are and what they are set to. */
export const PANELS: readonly Panel[] = [
  panel('design', 'itself', DesignPanel),
  panel('switch', 'here', CableTo, 'Cable'),
  panel('switch', 'itself', PortList),
  panel('switch', 'itself', StackPanel),
  panel('switch', 'itself', PairPanel),
  panel('switch', 'itself', SwitchPanel),
  panel('switch', 'itself', AllSettings),
  panel('port', 'itself', PortPanel),
  panel('link', 'itself', LinkPanel),
  panel('host', 'itself', HostPanel),
  panel('several', 'itself', GroupPanel),
  panel('several', 'itself', SeveralPanel),
];
