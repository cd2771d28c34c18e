/** What is drawn of a map, laid out and labelled: on the screen before the page is alive, and in pictures. Pure. */
import { bundlesOf } from '../../../core/topology/lag/ends';
import { settleBundles } from '../../../core/topology/lag/settled';
import { BandDrawing } from '../BandDrawing';
import { bandsOf, isUpNow, pointsAlong } from '../bundleBands';
import { foldSkeleton } from '../folded';
import { layOutMap, positionsOf, skeletonOf } from '../geometry';
import { hostsRectangle } from '../hosts';
import { placeLabels } from '../labels';
import { drawnLink, linkText } from '../linkStrands';
import { outlinesOf } from '../outlines';
import { YokeDrawing } from '../PairYokes';
import { yokesOf } from '../yokes';
import { labelledSheaf, SheafDrawing, sheafOf } from '../sheaf';
import { LinkDrawing } from '../StrandView';
import { GroupBox, SwitchBox } from './PictureBoxes';
import type { Frame, PictureOf } from './pictureOf';

/** Everything that is drawn, in its place. */
export function drawingOf(given: PictureOf) {
  const of = { ...given, solution: given.instant?.picture ?? given.solution };
  const { design, solution, trees, scale, instant } = of;
  const skeleton = foldSkeleton(skeletonOf(design, null), of.stands);
  const places = of.places ?? positionsOf(skeleton);
  const { boxes, lines } = layOutMap(skeleton, places, { strands: trees.length, scale });
  const outlines = outlinesOf(of.open, boxes);
  const yokes = solution ? yokesOf(solution.network, boxes) : [];
  const cabling = trees.length === 0;
  const own = skeleton.links.filter(({ id }) => !skeleton.sheaves.has(id));
  const lineOf = new Map(lines.map((line) => [line.link, line]));
  const ports = new Map(
    design.switches.flatMap((sw) => sw.ports.map((port) => [`${sw.id}\n${port.id}`, port.speed] as const)),
  );
  const links = own.flatMap((link) => {
    const line = lineOf.get(link.id);
    const speed = Math.max(...[link.a, link.b].map((end) => ports.get(`${end.switch}\n${end.port}`) ?? 0));
    const drawn = drawnLink({ solution, shownTrees: trees, moved: null }, link, instant ?? undefined);
    return line ? [{ link, line, speed, text: linkText(link, speed, drawn, cabling), ...drawn }] : [];
  });
  const sheaves = lines.flatMap((line) => {
    const inside = skeleton.sheaves.get(line.link);
    return inside ? [sheafOf(line, inside, solution, trees)] : [];
  });
  const bundles = bundlesOf(design);
  const bands = bandsOf(
    links.map(({ link }) => link),
    links.map(({ line }) => line),
    bundles,
    settleBundles(bundles),
  ).map((band) => ({ ...band, up: isUpNow(band, instant?.picture.network ?? null) }));
  const labels = placeLabels(
    [
      ...links.map(({ line, strands, text }) => ({ line, strands: cabling ? [] : strands, text })),
      ...sheaves.map(labelledSheaf),
    ],
    boxes,
    bands.flatMap(({ points }) => pointsAlong(points)),
    outlines.flatMap(({ label }) => label?.at ?? []),
  );
  return { of, skeleton, boxes, lines, outlines, yokes, sheaves, links, bands, labels, cabling };
}
export type Drawing = ReturnType<typeof drawingOf>;

/** The map itself, in pixels of the scale that it was laid out for. */
export function MapDrawing({ drawing }: { readonly drawing: Drawing }) {
  const { of, skeleton, boxes, outlines, yokes, sheaves, links, bands, labels, cabling } = drawing;
  return (
    <>
      {outlines.map(({ group, rectangles, label }) => (
        <g key={group}>
          {rectangles.map((at, i) => (
            <rect key={i} {...at} rx={10} fill="none" stroke="var(--rule-strong)" strokeDasharray="2 4" />
          ))}
          {label && (
            <>
              <rect {...label.at} rx={4} fill="var(--paper)" />
              <text x={label.at.x + 4} y={label.at.y + 12} fontSize={11.5} fontWeight={600} fill="var(--ink-soft)">
                {label.text}
              </text>
            </>
          )}
        </g>
      ))}
      {yokes.map((yoke) => (
        <YokeDrawing key={yoke.key} yoke={yoke} />
      ))}
      {sheaves.map((sheaf) => (
        <SheafDrawing key={sheaf.line.link} sheaf={sheaf} labels={labels.get(sheaf.line.link)} />
      ))}
      {links.map(({ link, ...drawn }) => (
        <LinkDrawing key={link.id} {...drawn} cabling={cabling} labels={labels.get(link.id)} />
      ))}
      {bands.map(({ end, points, up }) => (
        <BandDrawing key={`${end.owner.kind} ${end.id}`} points={points} up={up} strong={of.bundling ?? false} />
      ))}
      {boxes.map((box) => {
        const filled = skeleton.groups.get(box.id);
        return filled ? (
          <GroupBox key={box.id} box={box} filled={filled} of={of} />
        ) : (
          <SwitchBox key={box.id} box={box} of={of} />
        );
      })}
    </>
  );
}

/** All that is drawn, with a little room around it. */
export function wholeOf({ boxes, lines, outlines }: Drawing): Frame {
  const rectangles: Frame[] = [
    ...boxes.flatMap((box) => [
      {
        x: box.centre.x - box.width / 2,
        y: box.centre.y - box.height / 2,
        width: box.width,
        height: box.height,
      },
      ...[hostsRectangle(box)].filter((at) => at !== null),
    ]),
    ...lines.flatMap(({ from, to, bends, loops }) =>
      [from, to, ...bends].map(({ x, y }) => ({ x, y: loops ? y - 70 : y, width: 0, height: loops ? 70 : 0 })),
    ),
    ...outlines.flatMap((outline) => outline.rectangles),
  ];
  if (rectangles.length === 0) return { x: 0, y: 0, width: 200, height: 80 };
  const [left, top] = [Math.min(...rectangles.map((r) => r.x)) - 16, Math.min(...rectangles.map((r) => r.y)) - 16];
  return {
    x: Math.floor(left),
    y: Math.floor(top),
    width: Math.ceil(Math.max(...rectangles.map((r) => r.x + r.width)) + 16 - left),
    height: Math.ceil(Math.max(...rectangles.map((r) => r.y + r.height)) + 16 - top),
  };
}
