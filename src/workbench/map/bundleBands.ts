/** Bands of bundles: where they run over the links that act as one. Pure. */
import type { BundleEnd, Bundles } from '../../core/topology/lag/ends';
import type { SettledBundles } from '../../core/topology/lag/settled';
import type { Link } from '../../core/model/document';
import type { Network } from '../../core/topology/network';
import type { Line, Point } from './drawn';
import { courseOf } from './run';

export interface BundleBand {
  readonly end: BundleEnd;
  readonly up: boolean;
  readonly points: readonly Point[];
  readonly title: string;
}

/** How far beyond the outer links a band reaches. */
const OVER = 9;
/** Where a band stands that is one end's alone, from that end. */
const NEAR = 0.2;

export function bandsOf(
  links: readonly Link[],
  lines: readonly Line[],
  { ends, members }: Bundles,
  settled: SettledBundles,
): BundleBand[] {
  const place = new Map(links.map((link, i) => [link.id, i]));
  const done = new Set<string>();
  return ends.flatMap((end): BundleBand[] => {
    const drawn = end.members.flatMap((m) => {
      const { link: id, at, far } = members[m]!;
      const i = id === null ? undefined : place.get(id);
      const line = i === undefined ? undefined : lines[i];
      return line ? [{ line, far, fromHere: links[i!]!.a.switch === at.switch && links[i!]!.a.port === at.port }] : [];
    });
    if (drawn.length === 0) return [];
    const others = new Set(drawn.map(({ far }) => (far < 0 ? -1 : members[far]!.end)));
    const [other = -1] = others;
    const far =
      others.size === 1 && other >= 0 && ends[other]!.members.length === end.members.length ? ends[other]! : null;
    const key = drawn
      .map(({ line }) => line.link)
      .sort()
      .join();
    if (far && done.has(key)) return [];
    if (far) done.add(key);
    const points = drawn.map(({ line, fromHere }) => courseOf(line, 0).along(far ? 0.5 : fromHere ? NEAR : 1 - NEAR));
    const reason = settled.ends[end.index]!.reason;
    return [
      {
        end,
        up: settled.ends[end.index]!.up && (!far || settled.ends[far.index]!.up),
        points: reaching(points, drawn[0]!.line),
        title: `${end.ownerName}, bundle ${end.name}${far ? `; ${far.ownerName}, bundle ${far.name}` : ''}. ${reason}`,
      },
    ];
  });
}

/** Whether a bundle is up: at an instant of a run by its network then. */
export function isUpNow({ end, up }: BundleBand, played: Network | null): boolean {
  const port = played && end.owner.kind === 'switch' ? played.portIndexOf(end.owner.switch, end.owner.bundle) : -1;
  return played && port >= 0 ? played.live[port] === 1 : up;
}

/** The points in order along the band, and a little beyond the outer ones; around one link, across it. */
function reaching(points: readonly Point[], line: Line): Point[] {
  const across = { x: -(line.to.y - line.from.y), y: line.to.x - line.from.x };
  const inOrder = [...points].sort((p, q) => (p.x - q.x) * across.x + (p.y - q.y) * across.y);
  const [first, last] = [inOrder[0]!, inOrder.at(-1)!];
  const span = inOrder.length > 1 ? { x: last.x - first.x, y: last.y - first.y } : across;
  const length = Math.hypot(span.x, span.y) || 1;
  const by = { x: (span.x / length) * OVER, y: (span.y / length) * OVER };
  return [{ x: first.x - by.x, y: first.y - by.y }, ...inOrder, { x: last.x + by.x, y: last.y + by.y }];
}

/** Points along a band, near enough to each other that nothing of a letter's size fits between. */
export function pointsAlong(points: readonly Point[]): Point[] {
  return points.slice(1).flatMap((to, i) => {
    const from = points[i]!;
    const steps = Math.max(1, Math.ceil(Math.hypot(to.x - from.x, to.y - from.y) / 9));
    return Array.from({ length: steps + 1 }, (_, k) => ({
      x: from.x + ((to.x - from.x) * k) / steps,
      y: from.y + ((to.y - from.y) * k) / steps,
    }));
  });
}
