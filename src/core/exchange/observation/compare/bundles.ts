/** Bundles and which of their members carry frames. */
import type { BundleEnd } from '../../../topology/lag/ends';
import type { Command } from '../../../edit/commands';
import type { Bundle } from '../../../model/document';
import type { PortId } from '../../../model/ids';
import { BUNDLE_PORTS } from '../../../topology/aggregated';
import { settleBundles } from '../../../topology/lag/settled';
import type { SwitchMatch } from '../match';
import type { ObservedBundle } from '../observation';
import type { Held } from './held';

export function compareBundles(held: Held): void {
  const settled = settleBundles(held.network.bundles);
  for (const end of held.network.bundles.ends) {
    const { owner } = end;
    if (owner.kind !== 'switch') continue;
    const pair = held.seen.get(owner.switch);
    const bundle = held.design.bundles.find(({ id }) => id === owner.bundle)!;
    if (pair) compareBundle(held, pair, bundle, activeIds(held, settled, end));
  }
}

const activeIds = (held: Held, settled: ReturnType<typeof settleBundles>, { index }: BundleEnd): string[] =>
  settled.ends[index]!.active.map((m) => held.network.bundles.members[m]!.id);

function compareBundle(held: Held, { designed, observed }: SwitchMatch, bundle: Bundle, wanted: string[]): void {
  const places = held.places.get(designed.id)!;
  const there = observed.bundles.find(
    ({ number }) => places.get(number)?.of.id === bundle.id || number === BUNDLE_PORTS + bundle.number,
  );
  const text = (ids: readonly string[]): string => [...ids].sort().join(', ') || 'none';
  const active = there?.members
    .filter((member) => member.active)
    .map(({ port }) => (places.get(port)?.of.id as string | undefined) ?? String(port));
  const gone = wanted.filter((id) => !active?.includes(id));
  const neighbourless = gone.filter(
    (id) => observed.tellsNeighbours && !observed.neighbours.some(({ port }) => places.get(port)?.of.id === id),
  );
  const commands = membersAsThere(bundle, there, places);
  held.tell(
    'bundle',
    'active members',
    { switch: designed.id, port: bundle.id },
    text(wanted),
    there ? text(active!) : 'no such bundle',
    {
      why: there && neighbourless.length > 0 ? `the neighbour table has no cable at ${text(neighbourless)}` : '',
      takeOver: commands.length > 0 ? () => commands : null,
    },
  );
}

/** Nothing where its members are the same, whichever of them carry frames. */
function membersAsThere(
  bundle: Bundle,
  there: ObservedBundle | undefined,
  places: ReadonlyMap<number, { readonly kind: string; readonly of: { readonly id: string } }>,
): Command[] {
  if (!there) return [{ do: 'remove-bundle', bundle: bundle.id }];
  const ports = there.members.flatMap(({ port }) => {
    const place = places.get(port);
    return place?.kind === 'port' ? [place.of.id as PortId] : [];
  });
  const isSame = ports.length === bundle.ports.length && ports.every((id) => bundle.ports.includes(id));
  return isSame || ports.length === 0 ? [] : [{ do: 'set-bundle', bundle: bundle.id, ports }];
}
