/** What can be done to the selection: remove, cut, power, copy, paste, line up. */
import { copyBlock, pasteBlock, readBlock, type Block } from '../../core/edit/block';
import type { Command } from '../../core/edit/commands';
import type { SwitchId } from '../../core/model/ids';
import { bundleThese } from '../../core/analysis/lag/bundling';
import { aligned, type Alignment, type Point } from './align';
import { bridgePortAt, itemsOf, selectionOf, switchesIn, type Item } from './selection';
import type { Workbench } from './store';

/** Commands that take the selected things out of the design: a port goes with its cable, a switch with its own. */
export function removalOf({ design, selection }: Workbench): Command[] {
  const items = itemsOf(selection);
  const gone = new Set<string>(switchesIn(selection));
  const ports = new Set(items.flatMap((item) => (item.kind === 'port' ? [`${item.switch}\n${item.port}`] : [])));
  return items
    .flatMap((item): Command[] => {
      switch (item.kind) {
        case 'switch':
          return [{ do: 'remove-switch', switch: item.switch }];
        case 'host':
          return [{ do: 'remove-host', host: item.host }];
        case 'port': {
          if (gone.has(item.switch)) return [];
          const { port, bundle } = bridgePortAt(design, item);
          if (bundle) return [{ do: 'remove-bundle', bundle: bundle.id }];
          return port ? [{ do: 'remove-port', switch: item.switch, port: port.id }] : [];
        }
        case 'link': {
          const link = design.links.find((l) => l.id === item.link);
          const already =
            !link || [link.a, link.b].some((end) => gone.has(end.switch) || ports.has(`${end.switch}\n${end.port}`));
          return already ? [] : [{ do: 'remove-link', link: item.link }];
        }
      }
    })
    .sort((a, b) => ORDER.indexOf(a.do) - ORDER.indexOf(b.do));
}
const ORDER = ['remove-bundle', 'remove-link', 'remove-host', 'remove-port', 'remove-switch'];

export function removeSelected(state: Workbench): void {
  const commands = removalOf(state);
  if (commands.length > 0) state.act(...commands);
}

const selectedBundling = ({ design, selection }: Workbench) =>
  bundleThese(
    design,
    itemsOf(selection).flatMap((item) => (item.kind === 'link' ? [item.link] : [])),
  );

/** Whether the selected links can be one bundle. */
export const canBundle = (state: Workbench): boolean => selectedBundling(state).ok;

/** Bundles the selected links at both ends, and goes to the bundle. */
export function bundleSelected(state: Workbench): void {
  const made = selectedBundling(state);
  if (!made.ok) return;
  const [{ switch: sw, id }] = made.value.bundles;
  if (state.act(...made.value.commands) === null) state.select({ kind: 'port', switch: sw, port: id });
}

/** Cuts the selected links where any is whole, else restores them. */
export function cutOrRestore(state: Workbench): void {
  const links = itemsOf(state.selection).flatMap((item) =>
    item.kind === 'link' ? state.design.links.filter((link) => link.id === item.link) : [],
  );
  const cut = links.some((link) => link.up);
  if (links.length > 0)
    state.act(
      ...links.filter((link) => link.up === cut).map((link): Command => ({ do: 'set-link', link: link.id, up: !cut })),
    );
}

/** Switches the selected switches off where any is on, else on. */
export function powerOffOrOn(state: Workbench): void {
  const chosen = new Set(switchesIn(state.selection));
  const switches = state.design.switches.filter((sw) => chosen.has(sw.id));
  const off = switches.some((sw) => sw.up);
  if (switches.length > 0)
    state.act(
      ...switches.filter((sw) => sw.up === off).map((sw): Command => ({ do: 'set-switch', switch: sw.id, up: !off })),
    );
}

export const selectAll = ({ design, select }: Workbench): void =>
  select(selectionOf(design.switches.map((sw): Item => ({ kind: 'switch', switch: sw.id }))));

/** The selected switches as clipboard text; null where none is selected. */
export function copiedText({ design, selection }: Workbench): string | null {
  const block = copyBlock(design, new Set(switchesIn(selection)));
  return block && JSON.stringify(block);
}

/** Adds what the clipboard holds beside what is there and selects it. Gives null, or why not. */
export function pasteText(state: Workbench, text: string): string | null {
  const block = readBlock(text);
  if (!block.ok) return block.error;
  const { commands, switches } = pasteBlock(
    state.design,
    block.value,
    roomFor(block.value, [...(state.controls?.places().values() ?? [])]),
  );
  const refused = state.act(...commands);
  if (refused === null) state.select(selectionOf(switches.map((id): Item => ({ kind: 'switch', switch: id }))));
  return refused;
}

/** How far to move a block so that no switch of it covers one that is there. */
export function roomFor(block: Block, taken: readonly Point[]): Point {
  const places = block.switches.flatMap((sw) => sw.position ?? []);
  if (places.length === 0) return { x: 0, y: 0 };
  const [xs, ys] = [places.map((p) => p.x), places.map((p) => p.y)];
  const [width, height] = [Math.max(...xs) - Math.min(...xs) + 240, Math.max(...ys) - Math.min(...ys) + 180];
  for (let ring = 1; ; ring += 1) {
    for (const [x, y] of [
      [1, 0],
      [0, 1],
      [-1, 0],
      [0, -1],
      [1, 1],
    ] as const) {
      const by = { x: x * ring * width, y: y * ring * height };
      if (
        places.every((p) =>
          taken.every((other) => Math.abs(p.x + by.x - other.x) >= 200 || Math.abs(p.y + by.y - other.y) >= 120),
        )
      )
        return by;
    }
  }
}

/** Lines up the selected switches. */
export function lineUp(state: Workbench, how: Alignment): void {
  const command = aligned(state.controls?.places() ?? new Map<SwitchId, Point>(), switchesIn(state.selection), how);
  if (command) state.act(command);
}
