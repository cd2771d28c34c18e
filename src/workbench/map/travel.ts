/** Travelling over the map by arrow keys: from a switch to a port, along its cable to the far end, on to the next switch. */
import type { Link } from '../../core/model/document';
import type { Item, Selection } from '../state/selection';
import { itemsOf } from '../state/selection';
import type { Box, MapGeometry, Point } from './geometry';

export type Direction = 'up' | 'down' | 'left' | 'right';

const VECTORS: Readonly<Record<Direction, Point>> = {
  up: { x: 0, y: -1 },
  down: { x: 0, y: 1 },
  left: { x: -1, y: 0 },
  right: { x: 1, y: 0 },
};
/** How well a way must fit the direction that was asked for: the cosine of the angle between them. */
const FITS = 0.4;

/** Where an arrow leads from what is selected; null where nothing lies that way. */
export function travel(
  { boxes, lines }: MapGeometry,
  links: readonly Link[],
  selection: Selection | null,
  direction: Direction,
): Item | null {
  const from = itemsOf(selection).at(-1);
  const want = VECTORS[direction];
  const boxOf = (id: string): Box | undefined => boxes.find((box) => box.id === id);
  const first = boxes[0];
  if (!from || from.kind === 'host') return first ? { kind: 'switch', switch: first.id } : null;
  if (from.kind === 'link') {
    const i = links.findIndex((link) => link.id === from.link);
    const [link, line] = [links[i], lines[i]];
    if (!link || !line) return null;
    const forward = dot(toward(line.from, line.to), want) >= 0;
    const end = forward ? link.b : link.a;
    return { kind: 'port', switch: end.switch, port: end.port };
  }
  const box = boxOf(from.switch);
  if (!box) return null;
  const ends = endsOf(box);
  if (from.kind === 'switch') {
    const best = bestOf(ends, (end) => dot(end.out, want));
    if (best && dot(best.out, want) > FITS) return { kind: 'port', switch: box.id, port: best.port };
    return nearestSwitch(box, want);
  }
  const here = ends.find((end) => end.port === from.port);
  if (!here) return { kind: 'switch', switch: box.id };
  const along = dot(here.out, want);
  if (along > FITS) return { kind: 'port', switch: here.far.switch, port: here.far.port };
  if (along < -FITS) return { kind: 'switch', switch: box.id };
  const beside = ends.filter((end) => end !== here && dot(toward(here.at, end.at), want) > FITS);
  const next = bestOf(beside, (end) => -distance(here.at, end.at));
  return next ? { kind: 'port', switch: box.id, port: next.port } : { kind: 'switch', switch: box.id };

  function endsOf(own: Box) {
    const found = new Map(
      own.attachments.map((attachment) => [
        attachment.port,
        { x: own.centre.x - own.width / 2 + attachment.at.x, y: own.centre.y - own.height / 2 + attachment.at.y },
      ]),
    );
    return links.flatMap((link, i) => {
      const line = lines[i]!;
      return (
        [
          [link.a, link.b, line.from, line.to],
          [link.b, link.a, line.to, line.from],
        ] as const
      ).flatMap(([near, far, start, stop]) => {
        const at = near.switch === own.id ? found.get(near.port) : undefined;
        return at ? [{ port: near.port, far, at, out: toward(start, stop) }] : [];
      });
    });
  }

  function nearestSwitch(own: Box, way: Point): Item | null {
    const others = boxes.filter((other) => other !== own && dot(toward(own.centre, other.centre), way) > FITS);
    const next = bestOf(others, (other) => -distance(own.centre, other.centre));
    return next ? { kind: 'switch', switch: next.id } : null;
  }
}

const dot = (a: Point, b: Point): number => a.x * b.x + a.y * b.y;
const distance = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y);
const toward = (a: Point, b: Point): Point => {
  const length = distance(a, b) || 1;
  return { x: (b.x - a.x) / length, y: (b.y - a.y) / length };
};

function bestOf<T>(items: readonly T[], score: (item: T) => number): T | undefined {
  return items.reduce<T | undefined>(
    (best, item) => (best === undefined || score(item) > score(best) ? item : best),
    undefined,
  );
}
