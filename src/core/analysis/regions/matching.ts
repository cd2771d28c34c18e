/** One switch given the region settings of another: what that does to regions, trees and links. */
import { isMultiple } from '../../model/document';
import type { Command } from '../../edit/commands';
import { editAll } from '../../edit/edit';
import type { SwitchId } from '../../model/ids';
import { fail, ok, type Result } from '../../base/result';
import { movedEnds } from '../../tree/moved';
import type { Solution } from '../../tree/settled';
import { solve } from '../../tree/solve';
import { linkLoads } from '../sharing/load';
import { regionsIn } from './regions';

type FieldChange = readonly [before: number, after: number];

export interface RegionMatch {
  /** The one whose settings change. */
  readonly switch: SwitchId;
  readonly like: SwitchId;
  readonly commands: readonly Command[];
  /** Pieces of regions count each. */
  readonly regions: FieldChange;
  /** Live links with an end that leads out of its region. */
  readonly boundaries: FieldChange;
  readonly moved: number;
  readonly idle: FieldChange;
  /** Share of the speed of the most loaded link. */
  readonly peak: FieldChange;
}

/** Either of two switches with the other's settings; where the other has none there is nothing to give. */
export function regionMatches(before: Solution, a: SwitchId, b: SwitchId): Result<RegionMatch[], string> {
  const { design } = before.network;
  const found = (
    [
      [a, b],
      [b, a],
    ] as const
  ).flatMap(([one, other]): RegionMatch[] => {
    const region = design.switches.find((sw) => sw.id === other)?.region;
    if (region === undefined) return [];
    const commands: Command[] = [{ do: 'set-switch', switch: one, region }];
    const edited = editAll(design, commands);
    const solved = edited.ok ? solve(edited.value.design) : null;
    if (!solved) return [];
    const [was, is] = [figures(before), figures(solved)];
    return [
      {
        switch: one,
        like: other,
        commands,
        moved: movedEnds(before, solved).length,
        regions: [was.regions, is.regions],
        boundaries: [was.boundaries, is.boundaries],
        idle: [was.idle, is.idle],
        peak: [was.peak, is.peak],
      },
    ];
  });
  return found.length > 0 ? ok(found) : fail('Neither of them has region settings that could be given to the other.');
}

function figures(solution: Solution): Readonly<Record<'regions' | 'boundaries' | 'idle' | 'peak', number>> {
  const loads = linkLoads(solution);
  return {
    regions: regionsIn(solution.network).reduce((sum, region) => sum + region.pieces.length, 0),
    boundaries: boundariesIn(solution),
    idle: loads.idle.length,
    peak: loads.peak?.share ?? 0,
  };
}

function boundariesIn({ network, trees }: Solution): number {
  const inside = trees[0]?.regional?.inside;
  return network.design.links.filter(({ a, b }) => {
    const ends = [network.portIndexOf(a.switch, a.port), network.portIndexOf(b.switch, b.port)];
    return (
      ends.every((p) => network.live[p] === 1) &&
      ends.some((p) => isMultiple(network.switches[network.owner[p]!]!) && inside?.[p] === 0)
    );
  }).length;
}
