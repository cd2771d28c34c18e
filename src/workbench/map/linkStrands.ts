/** What to draw on one link, as a short text that changes only when the picture does, and back. */
import { treeLabel } from '../../core/model/ids';
import type { Link } from '../../core/model/document';
import type { RunState } from '../../core/modes/entity';
import { bridgePortOf } from '../../core/topology/network';
import { ROLES, treeOf, type Role } from '../../core/tree/settled';
import type { Workbench } from '../state/store';
import { ROLE_LETTERS } from '../ui/words/roles';

/** A link as drawn. */
export interface DrawnLink {
  /** Neither end has signal. */
  readonly dead: boolean;
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
  /** The states at an instant of a run; null where the network has settled. */
  readonly states: readonly [RunState, RunState] | null;
}

/**
 * `dead` or `live`, then `treeIndex,label,roleA,roleB,wasA,wasB,disputedA,disputedB` for each shown tree that this link has a
 * part in, with the states of an instant where `stateAt` gives them.
 */
export function linkStrandsKey(
  { solution, shownTrees, moved }: Pick<Workbench, 'solution' | 'shownTrees' | 'moved'>,
  link: Link,
  stateAt?: (tree: number, port: number) => RunState,
): string {
  if (!solution) return link.up ? 'live' : 'dead';
  const { network } = solution;
  const aggregationPorts = [
    network.portIndexOf(link.a.switch, link.a.port),
    network.portIndexOf(link.b.switch, link.b.port),
  ] as const;
  if (aggregationPorts[0] < 0 || aggregationPorts[1] < 0) return 'dead';
  // A bundle's members show what the bundle is; one that it keeps out shows nothing.
  const [a, b] = [bridgePortOf(network, aggregationPorts[0]), bridgePortOf(network, aggregationPorts[1])];
  const parts: string[] = [network.light[aggregationPorts[0]] ? 'live' : 'dead'];
  for (const id of shownTrees) {
    const tree = treeOf(solution, id);
    if (!tree || (tree.role[a] === 0 && tree.role[b] === 0)) continue;
    const before = moved?.before.get(id);
    const was = (p: number): number => {
      const role = before?.get(p);
      return role === undefined ? -1 : role === null ? 0 : ROLES.indexOf(role);
    };
    const t = solution.trees.indexOf(tree);
    parts.push(
      [
        t,
        treeLabel(id),
        tree.role[a],
        tree.role[b],
        was(a),
        was(b),
        tree.disputed[a],
        tree.disputed[b],
        ...(stateAt ? [stateAt(t, a), stateAt(t, b)] : []),
      ].join(','),
    );
  }
  return parts.join(';');
}

/** Reads a key back. */
export function readLinkStrands(key: string): DrawnLink {
  const [life, ...parts] = key.split(';');
  const strands = parts.map((part): LinkStrand => {
    const [treeIndex, label = '', a, b, wasA, wasB, disputedA, disputedB, stateA, stateB] = part.split(',');
    return {
      treeIndex: Number(treeIndex),
      label,
      roles: [roleAt(a), roleAt(b)],
      moved: wasA === '-1' && wasB === '-1' ? null : [roleAt(wasA), roleAt(wasB)],
      disputed: [disputedA === '1', disputedB === '1'],
      states: stateA && stateB ? [stateA as RunState, stateB as RunState] : null,
    };
  });
  return { dead: life === 'dead', strands };
}

function roleAt(code: string | undefined): Role | null {
  const role = ROLES[Number(code)];
  return role === undefined || role === 'absent' ? null : role;
}

/** What stands out on a link, `link`, `a`, `b`, several of them or nothing: what is wished for in the Steer lens, or answers of a worksheet that are not right. */
export function outlinedOn({ lens, wishes: { list }, worksheet }: Workbench, link: Link): string {
  if (worksheet?.marked) {
    const wrong = worksheet.marked.marks.filter((mark) => !mark.right && mark.given !== null && mark.port !== null);
    return (['a', 'b'] as const)
      .filter((side) => wrong.some((mark) => mark.switch === link[side].switch && mark.port === link[side].port))
      .join(' ');
  }
  if (lens !== 'Steer' || list.length === 0) return '';
  const blocksAt = (end: Link['a']): boolean =>
    list.some((wish) => wish.wants === 'block' && wish.switch === end.switch && wish.port === end.port);
  const parts = [
    list.some((wish) => wish.wants === 'carry' && wish.link === link.id) && 'link',
    blocksAt(link.a) && 'a',
    blocksAt(link.b) && 'b',
  ];
  return parts.filter(Boolean).join(' ');
}

/** The letters that a worksheet says of both ends so far, such as `R ?`; empty without an open worksheet. */
export function answeredOn({ worksheet, viewing }: Workbench, link: Link): string {
  if (!worksheet || !viewing?.hidden) return '';
  return [link.a, link.b]
    .map((end) => {
      const role = worksheet.answers.switches[end.switch]?.ports[end.port]?.role;
      return role ? ROLE_LETTERS[role] : '?';
    })
    .join(' ');
}
