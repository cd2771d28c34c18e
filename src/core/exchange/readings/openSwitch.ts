/** What Open vSwitch says of a bridge: `rstp/show`, `stp/show` and `lacp/show` of its daemon, and its ports from the database. */
import { z } from '../../base/zod';
import { VlanSet } from '../../model/vlanSet';
import type { BridgeId } from '../../topology/bridgeId';
import type { Role } from '../../tree/settled';
import type { BridgeReading, BundleReading, PortReading, ReadState, SwitchReading } from './reading';

/** `ovs-vsctl --format=json list port`: rows of values, each a plain one, `["set", [...]]`, `["map", [...]]` or `["uuid", ...]`. */
const tableSchema = z.object({ headings: z.array(z.string()), data: z.array(z.array(z.unknown())) });

const setOf = <T>(of: z.ZodType<T>) =>
  z.union([of.transform((one) => [one]), z.tuple([z.literal('set'), z.array(of)]).transform(([, all]) => all)]);
const uuid = z.tuple([z.literal('uuid'), z.string()]).transform(([, id]) => id);

/** The texts that are read. */
export interface OpenSwitchTexts {
  /** What `rstp/show` or `stp/show` printed; null where it runs neither. */
  readonly trees: string | null;
  /** What `lacp/show` printed. */
  readonly lacp: string;
  /** `list port` and `list interface`, parsed. */
  readonly ports: unknown;
  readonly interfaces: unknown;
}

/** Reads a bridge by its name; what it cannot read it throws on, by Zod. */
export function readOpenSwitch(bridge: string, { trees, lacp, ports, interfaces }: OpenSwitchTexts): SwitchReading {
  const shown = new Map(trees === null ? [] : rowsOf(trees).map((row) => [row.interface, row]));
  const links = new Map(
    records(interfaces).map((of) => [
      uuid.parse(of('_uuid')),
      { name: z.string().parse(of('name')), lit: of('link_state') === 'up' },
    ]),
  );
  const negotiated = lacpMembers(lacp);
  const all = records(ports)
    .map((of) => ({
      of,
      name: z.string().parse(of('name')),
      members: setOf(uuid)
        .parse(of('interfaces'))
        .flatMap((id) => links.get(id) ?? []),
    }))
    .filter(({ name }) => name !== bridge);
  return {
    bridge: trees === null ? null : bridgeOf(trees, shown),
    ports: all.map(({ of, name, members }): PortReading => {
      const tree = shown.get(members[0]?.name ?? name);
      return {
        interface: name,
        state: tree?.state ?? (trees === null && members.some(({ lit }) => lit) ? 'forwarding' : 'disabled'),
        role: tree?.role ?? (trees === null ? null : 'disabled'),
        cost: tree?.cost ?? null,
        priority: tree?.priority ?? null,
        ...vlansOf(of('vlan_mode'), of('tag'), of('trunks')),
      };
    }),
    bundles: all
      .filter(({ name, members }) => members.length > 1 || members[0]?.name !== name)
      .map(({ name, members }): BundleReading => {
        const carries = negotiated.get(name);
        const active = members.filter((member) => (carries ? carries.has(member.name) : member.lit));
        return { interface: name, members: namesOf(members), active: namesOf(active) };
      }),
  };
}

const namesOf = (members: readonly { readonly name: string }[]): string[] => members.map(({ name }) => name).sort();

/** Records of a table, each as what it has in a column. */
function records(table: unknown): ((column: string) => unknown)[] {
  const { headings, data } = tableSchema.parse(table);
  return data.map(
    (row) =>
      (column): unknown =>
        row[headings.indexOf(column)],
  );
}

function vlansOf(mode: unknown, tag: unknown, trunks: unknown): Pick<PortReading, 'vlans' | 'untagged'> {
  const untagged = typeof tag === 'number' ? tag : null;
  if (mode === 'access') return { vlans: untagged === null ? '' : String(untagged), untagged };
  const listed = setOf(z.number()).parse(trunks);
  const all = listed.length === 0 ? VlanSet.all : VlanSet.empty.with(listed);
  return { vlans: (untagged === null ? all : all.with([untagged])).format(), untagged };
}

interface Row {
  readonly interface: string;
  readonly role: Role;
  readonly state: ReadState;
  readonly cost: number;
  readonly priority: number;
}

const ROLE_WORDS: Readonly<Record<string, Role>> = {
  root: 'root',
  designated: 'designated',
  alternate: 'alternate',
  backup: 'backup',
  disabled: 'disabled',
};
const STATE_WORDS: Readonly<Record<string, ReadState>> = {
  forwarding: 'forwarding',
  discarding: 'discarding',
  blocking: 'discarding',
  listening: 'moving',
  learning: 'moving',
  disabled: 'disabled',
};

/** `port2      Alternate  Discarding 2000     128.2`. */
function rowsOf(text: string): Row[] {
  return text.split('\n').flatMap((line) => {
    const [, name, role, state, cost, priority] = /^\s+(\S+)\s+(\w+)\s+(\w+)\s+(\d+)\s+(\d+)\.\d+\s*$/.exec(line) ?? [];
    const [is, does] = [ROLE_WORDS[role?.toLowerCase() ?? ''], STATE_WORDS[state?.toLowerCase() ?? '']];
    if (!name || !is || !does) return [];
    return [
      {
        interface: name,
        role: is,
        state: is === 'disabled' ? 'disabled' : does,
        cost: Number(cost),
        priority: Number(priority),
      },
    ];
  });
}

function bridgeOf(text: string, rows: ReadonlyMap<string, Row>): BridgeReading | null {
  const [root, own] = ['Root ID:', 'Bridge ID:'].map((heading) => idAfter(text, heading));
  if (!root || !own) return null;
  return {
    id: own,
    root,
    rootPathCost: Number(/root-path-cost\s+(\d+)/.exec(text)?.[1] ?? 0),
    rootPort: [...rows.values()].find(({ role }) => role === 'root')?.interface ?? null,
  };
}

function idAfter(text: string, heading: string): BridgeId | null {
  const part = text.slice(Math.max(0, text.indexOf(heading)));
  const priority = /stp-priority\s+(\d+)/.exec(part)?.[1];
  const mac = /stp-system-id\s+([0-9a-f:]+)/.exec(part)?.[1];
  return priority === undefined || mac === undefined ? null : { priority: Number(priority), mac };
}

/** Of each bundle that negotiates, its members that carry frames: sections `---- bundle1 ----`, and in them `member: port1: …`. */
function lacpMembers(text: string): Map<string, Set<string>> {
  const [, ...parts] = text.split(/^---- (\S+) ----$/m);
  const found = new Map<string, Set<string>>();
  for (let i = 0; i + 1 < parts.length; i += 2)
    found.set(
      parts[i]!,
      new Set(
        parts[i + 1]!.split(/^(?:member|slave): /m)
          .slice(1)
          .filter((member) => /may_enable: true/.test(member))
          .flatMap((member) => /^(\S+):/.exec(member)?.[1] ?? []),
      ),
    );
  return found;
}
