/** A picture of the map as one SVG: laid out, labelled and drawn by what draws the map on the screen. Pure. */
import { treeName, type TreeId } from '../../../core/model/ids';
import { nameOf } from '../../../core/model/names';
import { islandRoots } from '../../../core/tree/explain/election';
import { treeOf, type Solution } from '../../../core/tree/settled';
import { strandStyle } from '../../ui/strandStyle';
import { ROLE_LETTERS } from '../../ui/words/roles';
import type { Box, Line } from '../drawn';
import { foldSkeleton } from '../folded';
import { layOutMap, positionsOf, skeletonOf } from '../geometry';
import { hostsRectangle } from '../hosts';
import { placeLabels } from '../labels';
import { drawnLink, linkText } from '../linkStrands';
import { outlinesOf } from '../outlines';
import { labelledSheaf, SheafDrawing, sheafOf } from '../sheaf';
import { LinkDrawing } from '../StrandView';
import { GroupBox, SwitchBox } from './PictureBoxes';
import type { Frame, PictureOf } from './pictureOf';

/** Around the drawing; height of the title above it, and of a row of the legend below it. */
const EDGE = { x: 24, y: 18, title: 34, row: 20 } as const;
const SANS = 'var(--sans)';

export function Picture(of: PictureOf) {
  const { design, solution, trees, scale, title, css } = of;
  const skeleton = foldSkeleton(skeletonOf(design, null), of.stands);
  const places = of.places ?? positionsOf(skeleton);
  const { boxes, lines } = layOutMap(skeleton, places, { strands: trees.length, scale });
  const outlines = outlinesOf(of.open, boxes);
  const cabling = trees.length === 0;
  const own = skeleton.links.filter(({ id }) => !skeleton.sheaves.has(id));
  const lineOf = new Map(lines.map((line) => [line.link, line]));
  const ports = new Map(
    design.switches.flatMap((sw) => sw.ports.map((port) => [`${sw.id}\n${port.id}`, port.speed] as const)),
  );
  const links = own.flatMap((link) => {
    const line = lineOf.get(link.id);
    const speed = Math.max(...[link.a, link.b].map((end) => ports.get(`${end.switch}\n${end.port}`) ?? 0));
    const drawn = drawnLink({ solution, shownTrees: trees, moved: null }, link);
    return line ? [{ link, line, speed, text: linkText(link, speed, drawn.dead, cabling), ...drawn }] : [];
  });
  const sheaves = lines.flatMap((line) => {
    const inside = skeleton.sheaves.get(line.link);
    return inside ? [sheafOf(line, inside, solution, trees)] : [];
  });
  const labels = placeLabels(
    [
      ...links.map(({ line, strands, text }) => ({ line, strands: cabling ? [] : strands, text })),
      ...sheaves.map(labelledSheaf),
    ],
    boxes,
    [],
    outlines.flatMap(({ label }) => label?.at ?? []),
  );
  const drawing =
    of.view ??
    wholeOf(
      boxes,
      lines,
      outlines.flatMap(({ rectangles }) => rectangles),
    );
  const legend = solution ? legendOf(solution, trees) : [];
  const width = Math.max(420, drawing.width + 2 * EDGE.x);
  const foot = EDGE.row * (legend.length + 1);
  const height = EDGE.title + drawing.height + foot + 2 * EDGE.y;
  const top = EDGE.title + EDGE.y;
  return (
    <svg
      xmlns="http://www.w3.org/2000/svg"
      viewBox={`0 0 ${width} ${height}`}
      width={width}
      height={height}
      fontFamily={SANS}
    >
      <title>{title}</title>
      <style>{css}</style>
      <rect width={width} height={height} fill="var(--paper)" />
      <text x={EDGE.x} y={EDGE.title - 8} fontSize={17} fontWeight={700} fill="var(--ink)">
        {title}
      </text>
      <svg
        x={(width - drawing.width) / 2}
        y={top}
        width={drawing.width}
        height={drawing.height}
        viewBox={`${drawing.x} ${drawing.y} ${drawing.width} ${drawing.height}`}
      >
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
        {sheaves.map((sheaf) => (
          <SheafDrawing key={sheaf.line.link} sheaf={sheaf} labels={labels.get(sheaf.line.link)} />
        ))}
        {links.map(({ link, ...drawn }) => (
          <LinkDrawing key={link.id} {...drawn} cabling={cabling} labels={labels.get(link.id)} />
        ))}
        {boxes.map((box) => {
          const filled = skeleton.groups.get(box.id);
          return filled ? (
            <GroupBox key={box.id} box={box} filled={filled} of={of} />
          ) : (
            <SwitchBox key={box.id} box={box} of={of} />
          );
        })}
      </svg>
      {legend.map(({ id, name, root, colour, dash }, i) => (
        <g key={id} transform={`translate(${EDGE.x} ${top + drawing.height + EDGE.y + i * EDGE.row})`} fontSize={12}>
          <path d="M0 0H34" stroke={colour} strokeWidth={3} strokeDasharray={dash} />
          <text x={44} y={4} fill="var(--ink)">
            {name}: root {root}
          </text>
        </g>
      ))}
      <text
        x={EDGE.x}
        y={top + drawing.height + EDGE.y + legend.length * EDGE.row + 4}
        fontSize={12}
        fill="var(--ink-soft)"
      >
        {cabling ? 'Cables with their speeds' : LETTERS}
      </text>
    </svg>
  );
}

const LETTERS = (['root', 'designated', 'alternate', 'backup'] as const)
  .map((role) => `${ROLE_LETTERS[role]} ${role}`)
  .join(', ');

/** Of each tree shown, how it is drawn and who is its root. */
function legendOf(solution: Solution, trees: readonly TreeId[]) {
  return trees.flatMap((id) => {
    const tree = treeOf(solution, id);
    const root = tree && islandRoots(solution.network, tree)[0];
    if (!tree || root === undefined) return [];
    const name = treeName(id);
    return [
      {
        id,
        name: name.slice(0, 1).toUpperCase() + name.slice(1),
        root: nameOf(solution.network.switches[root]!),
        ...strandStyle(solution.trees.indexOf(tree)),
      },
    ];
  });
}

/** All that is drawn, with a little room around it. */
function wholeOf(boxes: readonly Box[], lines: readonly Line[], outlines: readonly Frame[]): Frame {
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
    ...outlines,
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
