import type { BridgePortId, SwitchId } from '../../../core/model/ids';
import { panel, type Panel } from '../manifest';
import { AsItBelieves } from './AsItBelieves';
import { BridgePriority } from './BridgePriority';
import { Heard, HeardBy } from './Heard';
import { PairOfRoots } from './PairOfRoots';
import { WhyLink } from './WhyLink';
import { WhyPort } from './WhyPort';
import { WhyRoot } from './WhyRoot';

/** Why things are as they are, and the priorities that decide it. */
export const PANELS: readonly Panel[] = [
  panel('switch', 'why', ({ sw }) => <WhyRoot id={sw.id} />),
  panel('switch', 'why', ({ sw }) => <AsItBelieves id={sw.id} />, 'Root'),
  panel('switch', 'why', ({ sw }) => <HeardBy id={sw.id} />, 'Root'),
  panel('switch', 'tuning', BridgePriority),
  panel('port', 'why', ({ sw, port }) => <PortIs switch={sw.id} port={port.id} />),
  panel('bundle', 'why', ({ bundle }) => <PortIs switch={bundle.switch} port={bundle.id} />),
  panel('link', 'why', ({ link }) => (
    <>
      <WhyLink link={link} />
      <Heard ends={[link.a, link.b]} />
    </>
  )),
  panel('several', 'here', PairOfRoots, 'Root'),
];

/** Why a port is what it is, and what it hears. */
function PortIs(end: { readonly switch: SwitchId; readonly port: BridgePortId }) {
  return (
    <>
      <WhyPort id={end.switch} port={end.port} />
      <Heard ends={[end]} />
    </>
  );
}
