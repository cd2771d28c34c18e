/** The course of one strand along a link, and the glyphs' outlines at its ends. Pure geometry in map units. */
import { oncePer } from '../../core/base/cache';
import type { Line, Point } from './geometry';

/** One end of a strand: where it meets the box, and the direction away from the box. */
export interface CourseEnd {
  readonly at: Point;
  readonly out: Point;
}

export interface Course {
  readonly from: CourseEnd;
  readonly to: CourseEnd;
  /** The way between two distances from the ends, as an SVG path. */
  path(trimFrom: number, trimTo: number): string;
  readonly length: number;
  /** The point at a share of the way, 0 to 1. */
  along(share: number): Point;
}

const HEADROOM = 46;

/** The courses of a line that have been asked for, by offset. */
const coursesOf = oncePer((_: Line) => new Map<number, Course>());

/** The course at `offset` to the side of a link's middle. */
export function courseOf(line: Line, offset: number): Course {
  const courses = coursesOf(line);
  const known = courses.get(offset);
  if (known) return known;
  const course = line.loops ? loopRun(line, offset) : bentRun(line, offset);
  courses.set(offset, course);
  return course;
}

/** From point to point over the bends, all of it to the side by `offset`. */
function bentRun({ from, to, bends }: Line, offset: number): Course {
  const corners = [from, ...bends, to];
  const ways = corners.slice(1).map((end, i) => unit(corners[i]!, end));
  const [first, last] = [ways[0]!, ways.at(-1)!];
  const points = corners.map((corner, i) => {
    const [before, after] = [ways[i - 1] ?? first, ways[i] ?? last];
    // At a bend the offset runs along the line that halves it, so that strands stay side by side.
    const across = { x: -before.y - after.y, y: before.x + after.x };
    const share = Math.max(0.5, 1 + before.x * after.x + before.y * after.y);
    return add(corner, across, offset / share);
  });
  const lengths = points.slice(1).map((end, i) => Math.hypot(end.x - points[i]!.x, end.y - points[i]!.y));
  const length = lengths.reduce((sum, each) => sum + each, 0);
  return {
    from: { at: points[0]!, out: first },
    to: { at: points.at(-1)!, out: { x: -last.x, y: -last.y } },
    length,
    path: (trimFrom, trimTo) =>
      polyline([
        add(points[0]!, first, bends.length > 0 ? Math.min(trimFrom, lengths[0]! - 1) : trimFrom),
        ...points.slice(1, -1),
        add(points.at(-1)!, last, -(bends.length > 0 ? Math.min(trimTo, lengths.at(-1)! - 1) : trimTo)),
      ]),
    along: (share) => {
      let rest = share * length;
      for (const [i, each] of lengths.entries()) {
        if (rest <= each || i === lengths.length - 1) return add(points[i]!, ways[i]!, rest);
        rest -= each;
      }
      return points[0]!;
    },
  };
}

function unit(from: Point, to: Point): Point {
  const length = Math.hypot(to.x - from.x, to.y - from.y) || 1;
  return { x: (to.x - from.x) / length, y: (to.y - from.y) / length };
}

/** A cable from a switch to itself: up, across and down again, strands nested. */
function loopRun({ from, to }: Line, offset: number): Course {
  const up = { x: 0, y: -1 };
  const toward = Math.sign(to.x - from.x) || 1;
  const a = { x: from.x - offset * toward, y: from.y };
  const b = { x: to.x + offset * toward, y: to.y };
  const top = Math.min(a.y, b.y) - HEADROOM - offset;
  return {
    from: { at: a, out: up },
    to: { at: b, out: up },
    length: 2 * HEADROOM + Math.abs(b.x - a.x),
    path: (trimFrom, trimTo) =>
      polyline([add(a, up, trimFrom), { x: a.x, y: top }, { x: b.x, y: top }, add(b, up, trimTo)]),
    along: () => ({ x: (a.x + b.x) / 2, y: top }),
  };
}

/** A point at `out` along the strand and `across` to its side, seen from an end. */
export const atEnd = ({ at, out }: CourseEnd, away: number, across = 0): Point => ({
  x: at.x + out.x * away - out.y * across,
  y: at.y + out.y * away + out.x * across,
});

/** A closed or open SVG path through points. */
export const polyline = (points: readonly Point[], closed = false): string =>
  points.map((p, i) => `${i === 0 ? 'M' : 'L'}${round(p.x)} ${round(p.y)}`).join('') + (closed ? 'Z' : '');

const add = (p: Point, v: Point, by = 1): Point => ({ x: p.x + v.x * by, y: p.y + v.y * by });
const round = (n: number): number => Math.round(n * 10) / 10;
