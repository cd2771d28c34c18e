/** What to draw on one link. */
import { treeLabel } from '../../core/model/ids';
import { neighboursOf } from '../../core/analysis/neighbours/neighbours';
import { oncePer } from '../../core/base/cache';
import type { Design, Link } from '../../core/model/document';
import type { RunState } from '../../core/modes/entity';
import { bridgePortOf, isShut, shutCode } from '../../core/topology/network';
import { SHUT_BY } from '../../core/model/guard';
import type { Instant } from '../../core/sim/trace/trace';
import { CODE, HELD, heldText, roleOf, treeOf, type Role, type SettledTree } from '../../core/tree/settled';
import type { Workbench } from '../state/store';
import { ROLE_LETTERS } from '../ui/words/roles';
import { speedText } from '../ui/words/units';

/** A guard at an end of a link: `acts` where it keeps the port from forwarding, or has shut it. */
export interface GuardSign {
  readonly letter: 'B' | 'P' | 'R' | 'L' | 'V' | 'W' | 'O';
  readonly acts: boolean;
}

/** A link as drawn. */
export interface DrawnLink {
  /** Neither end has signal. */
  readonly dead: boolean;
  /** The guards that have shut its ends. */
  readonly shut: readonly [GuardSign | null, GuardSign | null];
  readonly strands: readonly LinkStrand[];
}

/** One tree's strand on one link; a role is null where that end is not in the tree. */
export interface LinkStrand {
  readonly treeIndex: number;
  /** What the tree is called in short; empty for the common tree. */
  readonly label: string;
  readonly roles: readonly [Role | null, Role | null];
  /** The role before the last change, at ends that it moved. */
  readonly moved: readonly [Role | null, Role | null] | null;
  /** Ends that are designated and block all the same, since the other end speaks for the segment too. */
  readonly disputed: readonly [boolean, boolean];
  /** The guard at either end that the tree's strand shows. */
  readonly guards: readonly [GuardSign | null, GuardSign | null];
  /** The states at an instant of a run; null where the network has settled. */
  readonly states: readonly [RunState, RunState] | null;
}

const NO_GUARDS = [null, null] as const;

/** What to draw on a link, in the Guard view with the guards that stand by; `at` is the instant of a run. */
export function drawnLink(
  {
    solution,
    shownTrees,
    moved,
    lens,
  }: Pick<Workbench, 'solution' | 'shownTrees' | 'moved'> & Partial<Pick<Workbench, 'lens'>>,
  link: Link,
  at?: Pick<Instant, 'state' | 'isHeld'>,
): DrawnLink {
  if (!solution) return { dead: !link.up, shut: NO_GUARDS, strands: [] };
  const { network } = solution;
  const [one, other] = [link.a, link.b].map((end) => network.portIndexOf(end.switch, end.port)) as [number, number];
  if (one < 0 || other < 0) return { dead: true, shut: NO_GUARDS, strands: [] };
  // A bundle's members show what the bundle is; one that it keeps out shows nothing.
  const [a, b] = [bridgePortOf(network, one), bridgePortOf(network, other)];
  const strands = shownTrees.flatMap((id): LinkStrand[] => {
    const tree = treeOf(solution, id);
    if (!tree || (tree.role[a] === CODE.absent && tree.role[b] === CODE.absent)) return [];
    const before = moved?.before.get(id);
    const treeIndex = solution.trees.indexOf(tree);
    return [
      {
        treeIndex,
        label: treeLabel(id),
        roles: [roleOf(tree, a), roleOf(tree, b)],
        moved: before?.has(a) || before?.has(b) ? [before.get(a) ?? null, before.get(b) ?? null] : null,
        disputed: [tree.disputed[a] !== 0, tree.disputed[b] !== 0],
        guards: [guardAt(treeIndex, tree, a), guardAt(treeIndex, tree, b)],
        states: at ? [at.state(treeIndex, a), at.state(treeIndex, b)] : null,
      },
    ];
  });
  const shutBy = (p: number): GuardSign | null =>
    isShut(network, p) ? { letter: shutCode(network, p) === SHUT_BY.bpduGuard ? 'B' : 'P', acts: true } : null;
  return { dead: network.macOperational[one] !== 1, shut: [shutBy(one), shutBy(other)], strands };

  function guardAt(treeIndex: number, tree: SettledTree, p: number): GuardSign | null {
    if (at?.isHeld(treeIndex, p) || tree.disputed[p]! >= HELD)
      return { letter: HOLDERS[heldText(network, p)] ?? 'L', acts: true };
    const port = network.ports[p]!;
    if (port.rootGuard && tree.role[p] === CODE.alternate) return { letter: 'R', acts: true };
    if (lens !== 'Guard' || tree.role[p] === CODE.absent) return null;
    if (port.rootGuard) return { letter: 'R', acts: false };
    return port.loopGuard ? { letter: 'L', acts: false } : null;
  }
}

const HOLDERS: Readonly<Record<string, GuardSign['letter']>> = {
  'held: VLANs differ': 'V',
  'held: roots differ': 'W',
  'held: own BPDU': 'O',
  'held: own BPDU, or by loop guard': 'O',
};

/** What is written on a link: in the Cable view its speed, else only that it carries nothing. */
export function linkText(
  link: Link,
  speed: number,
  { dead, shut }: Pick<DrawnLink, 'dead' | 'shut'>,
  cabling: boolean,
): string | null {
  if (shut.some(Boolean)) return null; // the guard's sign says it
  if (dead) return link.up ? 'no signal' : 'cut';
  return cabling ? speedText(speed) : null;
}

/** A link or one of its ends. */
export type LinkPart = 'link' | 'a' | 'b';

/** The ports where switches report another neighbour than is drawn. */
const reportedOtherwise = oncePer(
  (design: Design): ReadonlySet<string> =>
    new Set(
      neighboursOf(design).flatMap(({ at, verdict }) =>
        at && verdict !== 'as drawn' && verdict !== 'not observed' ? [`${at.switch}\n${at.port}`] : [],
      ),
    ),
);

/**
 * What stands out on a link: what is wished for in the Steer view, answers of a worksheet that are not right, or beside the
 * table of neighbours what is reported otherwise than drawn.
 */
export function outlinedOn({ lens, wishes: { list }, marked, drawer, design }: Workbench, link: Link): LinkPart[] {
  if (marked) {
    const wrong = marked.marks.filter((mark) => !mark.right && mark.given !== null && mark.port !== null);
    return (['a', 'b'] as const).filter((side) =>
      wrong.some((mark) => mark.switch === link[side].switch && mark.port === link[side].port),
    );
  }
  if (lens === 'Cable' && drawer.open && drawer.tab === 'neighbours' && design.observed.length > 0) {
    const differs = reportedOtherwise(design);
    return (['a', 'b'] as const).filter((side) => differs.has(`${link[side].switch}\n${link[side].port}`));
  }
  if (lens !== 'Steer') return [];
  const blocksAt = (end: Link['a']): boolean =>
    list.some((wish) => wish.wants === 'block' && wish.switch === end.switch && wish.port === end.port);
  const carries = list.some((wish) => wish.wants === 'carry' && wish.link === link.id);
  return [...(carries ? (['link'] as const) : []), ...(['a', 'b'] as const).filter((side) => blocksAt(link[side]))];
}

/** The letters that a worksheet says of both ends so far, `?` for none; null without an open worksheet. */
export function answeredOn({ looking }: Workbench, link: Link): readonly string[] | null {
  if (looking.kind !== 'worksheet') return null;
  return [link.a, link.b].map((end) => {
    const role = looking.answers.switches[end.switch]?.ports[end.port]?.role;
    return role ? ROLE_LETTERS[role] : '?';
  });
}
