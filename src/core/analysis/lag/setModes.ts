/** Setting how both ends of a bundle negotiate, as one step. */
import type { Command } from '../../edit/commands';
import type { Design } from '../../model/document';
import type { BundleEnd } from '../../topology/lag/ends';
import type { EndMode } from '../../topology/lag/modes';

/** What gives an end a mode; `none` takes it apart. Nothing where it has that mode. */
export function modeCommands(design: Design, { owner, mode: now }: BundleEnd, mode: EndMode): Command[] {
  if (mode === now) return [];
  if (owner.kind === 'switch')
    return [
      mode === 'none'
        ? { do: 'remove-bundle', bundle: owner.bundle }
        : { do: 'set-bundle', bundle: owner.bundle, mode },
    ];
  const cards = design.hosts.find((host) => host.id === owner.host)?.bundle;
  if (!cards) return [];
  return [{ do: 'set-host', host: owner.host, bundle: mode === 'none' ? null : { ...cards, mode } }];
}

/** Both ends at once; null where `far`, which has no bundle, would have to get one. */
export function pairCommands(
  design: Design,
  [end, far]: readonly [BundleEnd, BundleEnd | null],
  [a, b]: readonly [EndMode, EndMode],
): Command[] | null {
  if (!far) return b === 'none' ? modeCommands(design, end, a) : null;
  return [...modeCommands(design, end, a), ...modeCommands(design, far, b)];
}
