import { useFarEnds } from '../../state/farEnds';
import { useWorkbench } from '../../state/context';
import type { Subjects } from '../../state/subject';
import { panel, type Panel } from '../manifest';
import { BreakBundle } from './BreakBundle';
import { BundleCards } from './BundleCards';
import { BundlePanel } from './BundlePanel';
import { BundleThese } from './BundleThese';
import { HostCards } from './HostCards';
import { MemberNote } from './MemberNote';

/** Bundles, their members, and making them. */
export const PANELS: readonly Panel[] = [
  panel('port', 'whole', MemberOf),
  panel('port', 'here', BundleFrom, 'Bundle'),
  panel('link', 'here', ({ link }) => <BundleThese links={[link.id]} />, 'Bundle'),
  panel(
    'several',
    'here',
    ({ chosen: { links } }) => (links.length > 0 ? <BundleThese links={links.map((link) => link.id)} /> : null),
    'Bundle',
    'Cable',
  ),
  panel('bundle', 'here', BreakBundle, 'Break'),
  panel('bundle', 'here', BundlePanel),
  panel('host', 'itself', HostCards),
];

function MemberOf({ sw, port }: Subjects['port']) {
  const bundle = useWorkbench((state) =>
    state.design.bundles.find((each) => each.switch === sw.id && each.ports.includes(port.id)),
  );
  return bundle ? <MemberNote bundle={bundle} port={port.id} /> : null;
}

function BundleFrom({ sw, port }: Subjects['port']) {
  const far = useFarEnds()(sw.id, port.id);
  if (far?.host) return <BundleCards host={far.host} />;
  return far?.link ? <BundleThese links={[far.link]} /> : null;
}
