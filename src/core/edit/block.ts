/** Copying a block of switches with everything inside it, and pasting it where nothing collides. */
import { z } from '../base/zod';
import { fail, ok, type Result } from '../base/result';
import type { Command } from './commands';
import { FreshNames } from './fresh';
import type { BundleId, SwitchId } from '../model/ids';
import { bundleSchema, hostSchema, linkSchema, switchSchema, vlanSchema, type Design } from '../model/document';

/** What travels over the clipboard: switches, the cables among them, their bundles, hosts that hang on them alone, their VLANs. */
export const blockSchema = z.strictObject({
  format: z.literal('knot-path-block'),
  version: z.literal(1),
  vlans: z.array(vlanSchema),
  switches: z.array(switchSchema).min(1),
  links: z.array(linkSchema),
  bundles: z.array(bundleSchema),
  hosts: z.array(hostSchema),
});
export type Block = z.output<typeof blockSchema>;

/** Takes a block out of a design; null where none of the switches is in it. */
export function copyBlock(design: Design, ids: ReadonlySet<SwitchId>): Block | null {
  const within = (end: { readonly switch: SwitchId }): boolean => ids.has(end.switch);
  const switches = design.switches.filter((sw) => ids.has(sw.id));
  if (switches.length === 0) return null;
  return {
    format: 'knot-path-block',
    version: 1,
    vlans: [...design.vlans],
    switches,
    links: design.links.filter((link) => within(link.a) && within(link.b)),
    bundles: design.bundles.filter(within),
    hosts: design.hosts.filter((host) => host.attach.length > 0 && host.attach.every(within)),
  };
}

/** Reads a block from clipboard text. */
export function readBlock(text: string): Result<Block, string> {
  try {
    const parsed = blockSchema.safeParse(JSON.parse(text));
    if (parsed.success) return ok(parsed.data);
  } catch {
    // told below
  }
  return fail('The clipboard holds no block of switches that was copied in Knot Path.');
}

/**
 * Commands that add a copy of the block, `by` beside the original: fresh identifiers and MAC addresses, names numbered
 * on. Gives the new switches too.
 */
export function pasteBlock(
  design: Design,
  block: Block,
  by: { readonly x: number; readonly y: number },
): { readonly switches: SwitchId[]; readonly commands: Command[] } {
  const fresh = new FreshNames(design);
  const names = new Set(design.switches.map((sw) => sw.name ?? sw.id));
  const hostNames = new Set(design.hosts.map((host) => host.name ?? host.id));
  const bundleIds = new Set<string>(design.bundles.map((bundle) => bundle.id));
  const regions = new Set(design.regions.map((region) => region.id));
  const groups = new Set(design.groups.map((group) => group.id));
  const known = new Set(design.vlans.map((vlan) => vlan.id));
  const ids = new Map<SwitchId, SwitchId>();
  const commands: Command[] = block.vlans
    .filter((vlan) => !known.has(vlan.id))
    .map((vlan) => ({ do: 'add-vlan', vlan }));
  const moved = <T extends { readonly switch: SwitchId }>(end: T): T => ({ ...end, switch: ids.get(end.switch)! });

  for (const sw of block.switches) {
    const name = numberedOn(names, sw.name ?? sw.id);
    const id = fresh.switchId(name);
    ids.set(sw.id, id);
    const { name: _, region, group, position, ...rest } = sw;
    commands.push({
      do: 'add-switch',
      switch: {
        ...rest,
        id,
        mac: fresh.mac(),
        ...(id === name ? {} : { name }),
        ...(region !== undefined && regions.has(region) ? { region } : {}),
        ...(group !== undefined && groups.has(group) ? { group } : {}),
        ...(position ? { position: { x: position.x + by.x, y: position.y + by.y } } : {}),
      },
    });
  }
  for (const link of block.links)
    commands.push({ do: 'add-link', link: { ...link, id: fresh.linkId(), a: moved(link.a), b: moved(link.b) } });
  for (const bundle of block.bundles) {
    const id = numberedOn(bundleIds, bundle.id) as BundleId;
    commands.push({ do: 'add-bundle', bundle: { ...moved(bundle), id } });
  }
  for (const host of block.hosts) {
    const name = numberedOn(hostNames, host.name ?? host.id);
    const id = fresh.hostId(name);
    const { name: _, ...rest } = host;
    commands.push({
      do: 'add-host',
      host: { ...rest, id, mac: fresh.mac(), ...(id === name ? {} : { name }), attach: host.attach.map(moved) },
    });
  }
  return { switches: [...ids.values()], commands };
}

/** The name with its number counted on until nothing has it: `dome-2` gives `dome-3`, `lodge` gives `lodge-2`. */
export function numberedOn(used: Set<string>, name: string): string {
  const match = /^(.*?)(\d{1,9})$/s.exec(name);
  const [stem, digits] = match ? [match[1]!, match[2]!] : [`${name.slice(0, 190)}-`, '1'];
  let next = Number(digits) + 1;
  const at = (n: number): string => `${stem}${String(n).padStart(digits.length, '0')}`;
  while (used.has(at(next))) next += 1;
  used.add(at(next));
  return at(next);
}
