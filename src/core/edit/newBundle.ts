/** Bundles that are new: named after where they lead, with a number and an identifier that are free. */
import { firstFree } from '../base/firstFree';
import { bundleSchema, type Bundle, type BundleMode, type Design, type Port } from '../model/document';
import type { BridgePortId, HostId, SwitchId } from '../model/ids';

interface Wanted {
  readonly switch: SwitchId;
  readonly ports: readonly BridgePortId[];
  readonly mode: BundleMode;
  readonly far: SwitchId | HostId;
  readonly farName: string;
}

/** Named after the far end, carrying what its ports carry; its identifier is taken from then on. */
export function newBundle(
  design: Design,
  taken: Set<string>,
  { switch: side, ports, mode, far, farName }: Wanted,
): Bundle {
  const own = design.switches.find((sw) => sw.id === side)!.ports.filter((port) => ports.includes(port.id));
  const id = freshId(taken, [`to-${far}`, `${side}-to-${far}`]);
  taken.add(id);
  return bundleSchema.parse({
    id,
    name: nameToward(farName),
    switch: side,
    number: freeNumber(design, side),
    ports,
    mode,
    ...commonSettings(own),
  });
}

export const takenIds = (design: Design): Set<string> =>
  new Set<string>([
    ...design.bundles.map((bundle) => bundle.id),
    ...design.switches.flatMap((sw) => sw.ports.map((port) => port.id)),
  ]);

/** After what is at the other end. */
const nameToward = (far: string): string => `to ${far}`.slice(0, 200);

/** The first of some identifiers that is not taken, else the last of them, numbered. */
function freshId(taken: ReadonlySet<string>, wanted: readonly string[]): string {
  const free = wanted.find((id) => id.length <= 180 && !taken.has(id));
  if (free !== undefined) return free;
  const stem = wanted.at(-1)!.slice(0, 180);
  for (let n = 2; ; n += 1) if (!taken.has(`${stem}-${n}`)) return `${stem}-${n}`;
}

/** The lowest number that no bundle of a switch has. */
export const freeNumber = ({ bundles }: Design, sw: SwitchId): number =>
  firstFree(new Set(bundles.filter((bundle) => bundle.switch === sw).map((bundle) => bundle.number)));

/** What the ports carry, from the first; costs and priorities only where all ports have them: a bundle's cost comes from its members. */
function commonSettings(ports: readonly Port[]) {
  const [first] = ports;
  if (!first) return {};
  const all = <K extends 'edge' | 'priority' | 'trees'>(key: K): Partial<Pick<Port, K>> =>
    ports.every((port) => JSON.stringify(port[key]) === JSON.stringify(first[key]))
      ? ({ [key]: first[key] } as Partial<Pick<Port, K>>)
      : {};
  const trees = Object.entries(all('trees').trees ?? {}).flatMap(([tree, set]) =>
    set?.priority === undefined ? [] : [[tree, { priority: set.priority }]],
  );
  return { vlans: first.vlans, ...all('edge'), ...all('priority'), trees: Object.fromEntries(trees) as Port['trees'] };
}
