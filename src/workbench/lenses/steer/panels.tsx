import { useFarEnds } from '../../state/farEnds';
import { useBundles } from '../../state/useBundles';
import type { Subjects } from '../../state/subject';
import { panel, type Panel } from '../manifest';
import { SteerHere } from './SteerHere';
import { SteerSettings } from './SteerSettings';
import { WishFor } from './WishFor';

/** Ways to steer, and costs and priorities of ports. */
export const PANELS: readonly Panel[] = [
  panel('port', 'here', BlockHere, 'Steer'),
  panel('link', 'here', ({ link }) => <SteerHere wish={{ wants: 'carry', link: link.id }} />, 'Steer'),
  panel('several', 'here', WishFor, 'Steer'),
  panel('port', 'tuning', ({ sw, port }) => <SteerSettings id={sw.id} port={port} />),
  panel('bundle', 'tuning', BundleSettings),
];

/** Where the port leads to another switch. */
function BlockHere({ sw, port }: Subjects['port']) {
  const far = useFarEnds()(sw.id, port.id);
  return far?.switch ? <SteerHere wish={{ wants: 'block', switch: sw.id, port: port.id }} /> : null;
}

/** A bundle costs what its active members are worth together; what its first member is worth where none is active. */
function BundleSettings({ bundle }: Subjects['bundle']) {
  const { bundles, settled } = useBundles();
  const end = bundles.ends.find(({ owner, id }) => owner.kind === 'switch' && id === bundle.id);
  if (!end) return null;
  const active = end.members.filter((m) => settled.members[m]!.state === 'active');
  const speed = active.reduce((sum, m) => sum + bundles.members[m]!.speed, 0);
  return (
    <SteerSettings id={bundle.switch} port={{ ...bundle, speed: speed || bundles.members[end.members[0]!]!.speed }} />
  );
}
