/** Bands of bundles: where they run over the links that act as one. Pure. */
import { areHalves, type BundleEnd, type Bundles } from '../../core/topology/lag/ends';
import type { SettledBundles } from '../../core/topology/lag/settled';
import type { Link } from '../../core/model/document';
import type { Network } from '../../core/topology/network';
import type { Line, Point } from './drawn';
import { courseOf } from './run';

export interface BundleBand {
  readonly end: BundleEnd;
  /** Itself, or both halves of a bundle of a pair. */
  readonly ends: readonly BundleEnd[];
  readonly up: boolean;
  readonly points: readonly Point[];
  readonly title: string;
}

/** How far beyond the outer links a band reaches. */
const OVER = 9;
/** Where a band stands that is one end's alone, from that end. */
const NEAR = 0.2;
const ASIDE = 0.36;

export function bandsOf(
  links: readonly Link[],
  lines: readonly Line[],
  bundles: Bundles,
  settled: SettledBundles,
): BundleBand[] {
  const { ends, members } = bundles;
  const place = new Map(links.map((link, i) => [link.id, i]));
  const done = new Set<string>();
  const all = wholeEnds(ends);
  return all.flatMap((own): BundleBand[] => {
    const [end] = own as [BundleEnd];
    const drawn = membersOf(own).flatMap((m) => {
      const { link: id, at, far } = members[m]!;
      const i = id === null ? undefined : place.get(id);
      const line = i === undefined ? undefined : lines[i];
      return line ? [{ line, far, fromHere: links[i!]!.a.switch === at.switch && links[i!]!.a.port === at.port }] : [];
    });
    if (drawn.length === 0) return [];
    const others = new Set(drawn.map(({ far }) => (far < 0 ? -1 : members[far]!.end)));
    const [other = -1] = others;
    const there = all.find((each) => each.some(({ index }) => index === other)) ?? [];
    const isWhole =
      [...others].every((one) => there.some(({ index }) => index === one)) &&
      membersOf(there).length === membersOf(own).length;
    const far = isWhole ? there : [];
    const key = drawn
      .map(({ line }) => line.link)
      .sort()
      .join();
    if (isWhole && done.has(key)) return [];
    if (isWhole) done.add(key);
    // Across the middle; of a pair's bundle nearer to who has it by one end, where bundles to several do not meet.
    const share = !isWhole ? NEAR : own.length === far.length ? 0.5 : own.length < far.length ? ASIDE : 1 - ASIDE;
    const points = drawn.map(({ line, fromHere }) => courseOf(line, 0).along(fromHere ? share : 1 - share));
    const nameOf = (each: BundleEnd): string => `${each.ownerName}, bundle ${each.name}`;
    const reasons = [...new Set(own.map(({ index }) => settled.ends[index]!.reason))].join(' ');
    return [
      {
        end,
        ends: own,
        up: isUpIn(settled, own) && (!isWhole || isUpIn(settled, far)),
        points: reaching(points, drawn[0]!.line),
        title: `${[...own, ...far].map(nameOf).join('; ')}. ${reasons}`,
      },
    ];
  });
}

/** Ends, halves of one bundle of a pair together. */
function wholeEnds(ends: readonly BundleEnd[]): (readonly BundleEnd[])[] {
  return ends.flatMap((end) => {
    const halves = ends.filter((other) => other === end || areHalves(other, end));
    return halves[0] === end ? [halves] : [];
  });
}

const membersOf = (ends: readonly BundleEnd[]): number[] => ends.flatMap(({ members }) => members);

const isUpIn = (settled: SettledBundles, ends: readonly BundleEnd[]): boolean =>
  ends.some(({ index }) => settled.ends[index]!.up);

/** Whether a bundle is up: at an instant of a run by its network then. */
export function isUpNow({ ends, up }: BundleBand, played: Network | null): boolean {
  if (!played) return up;
  const ports = ends.flatMap(({ owner }) =>
    owner.kind === 'switch' ? [played.portIndexOf(owner.switch, owner.bundle)] : [],
  );
  return ports.length > 0 ? ports.some((port) => played.live[port] === 1) : up;
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
