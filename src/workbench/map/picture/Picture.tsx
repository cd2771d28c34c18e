/** A picture of the map as one SVG: laid out, labelled and drawn by what draws the map on the screen. Pure. */
import type { Filled } from '../../../core/analysis/groups/groups';
import { insideOf } from '../../../core/analysis/groups/counts';
import type { Design } from '../../../core/model/document';
import { treeLabel, treeName, type SwitchId, type TreeId } from '../../../core/model/ids';
import { nameOf } from '../../../core/model/names';
import { islandRoots } from '../../../core/tree/explain/election';
import { treeOf, type Solution } from '../../../core/tree/settled';
import { strandStyle } from '../../ui/strandStyle';
import { ROLE_LETTERS } from '../../ui/words/roles';
import { counted } from '../../ui/words/units';
import type { Box, Line } from '../drawn';
import { figuresKey, readFigures } from '../figures';
import { foldSkeleton, isSheafEnd } from '../folded';
import { layOutMap, positionsOf, skeletonOf } from '../geometry';
import { hostsRectangle, HOST_ROW } from '../hosts';
import { Knot, Loop } from '../knots';
import { placeLabels, TEXT } from '../labels';
import { drawnLink, linkText } from '../linkStrands';
import { outlinesOf } from '../outlines';
import { courseOf } from '../run';
import { labelledSheaf, SheafDrawing, sheafOf } from '../sheaf';
import { MapLabel, NO_LETTERS, Strand } from '../StrandView';

/** What a picture shows. */
export interface PictureOf {
  readonly design: Design;
  readonly solution: Solution | null;
  /** Trees side by side; none where it is about cables. */
  readonly trees: readonly TreeId[];
  /** By switch, the folded group that stands for it; and the groups drawn open. */
  readonly stands: ReadonlyMap<SwitchId, Filled>;
  readonly open: readonly Filled[];
  /** Places of boxes, in map units; where they are not given, those of the design. */
  readonly places?: ReadonlyMap<SwitchId, { readonly x: number; readonly y: number }>;
  /** Pixels for a map unit. */
  readonly scale: number;
  /** The part in view, pixels at this scale; the whole where it is not given. */
  readonly view?: Frame;
  readonly title: string;
  /** Rules that give the colours, and fonts as `@font-face`. */
  readonly css: string;
}

interface Frame {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Around the drawing; height of the title above it, and of a row of the legend below it. */
const EDGE = { x: 24, y: 18, title: 34, row: 20 } as const;
const SANS = 'var(--sans)';
const MONO = 'var(--mono)';

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
    return line ? [{ link, line, text: linkText(link, speed, drawn.dead, cabling), ...drawn }] : [];
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
        {links.map(({ link, line, strands, text, dead }) => {
          const placed = labels.get(link.id);
          const middle = courseOf(line, 0);
          return (
            <g key={link.id}>
              <path
                d={middle.path(1, 1)}
                stroke="var(--cable)"
                strokeWidth={cabling ? 2.2 : 1.3}
                strokeDasharray={dead ? '2 5' : undefined}
                fill="none"
              />
              {!cabling &&
                strands.map((strand, i) => (
                  <Strand
                    key={strand.treeIndex}
                    strand={strand}
                    run={courseOf(line, (i - (strands.length - 1) / 2) * line.gap)}
                    gap={line.gap}
                    letters={placed?.letters[strand.treeIndex] ?? NO_LETTERS}
                    named={placed?.trees[strand.treeIndex] ?? null}
                  />
                ))}
              {placed?.merged?.map(({ at, text: letter }, i) => (
                <MapLabel key={i} at={at} text={letter} colour="var(--ink)" size={TEXT.size} />
              ))}
              {text !== null && placed?.text != null && (
                <MapLabel at={middle.along(placed.text)} text={text} colour="var(--ink)" size={TEXT.size} />
              )}
            </g>
          );
        })}
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

interface BoxProps {
  readonly box: Box;
  readonly of: PictureOf;
}

function SwitchBox({ box, of: { design, solution, trees } }: BoxProps) {
  const sw = design.switches.find((each) => each.id === box.id);
  if (!sw) return null;
  const { x, y } = box.centre;
  const [left, top] = [x - box.width / 2, y - box.height / 2];
  const figures = readFigures(figuresKey({ solution, shownTrees: trees, lens: 'Root' }, box.id));
  const rows = box.figures ? Math.ceil(figures.length / 2) : 0;
  const knots = figures.filter(({ mark }) => mark === 'K');
  return (
    <g>
      <rect
        x={left}
        y={top}
        width={box.width}
        height={box.height}
        rx={7}
        fill="var(--raised)"
        stroke="var(--ink)"
        strokeWidth={sw.tier === 'access' ? 1.2 : 2}
        strokeDasharray={sw.up ? undefined : '4 3'}
      />
      {box.name !== null && (
        <text
          x={x}
          y={y + 5 - rows * 8.5}
          textAnchor="middle"
          fontSize={box.tight ? 12 : 14}
          fontWeight={700}
          fill="var(--ink)"
        >
          {box.name}
        </text>
      )}
      {rows > 0 &&
        figures.map(({ label, colour, cost, mark }, i) => {
          const sign = mark === 'K' ? Knot : mark === 'L' ? Loop : null;
          const across = figures.length === 1 ? 0 : ((i % 2 === 0 ? -1 : 1) * box.width) / 4 + (sign ? 9 : 0);
          const at = { x: x + across, y: y + 22 - rows * 8.5 + Math.floor(i / 2) * 17 };
          return (
            <g key={label}>
              {sign && (
                <g transform={`translate(${at.x - cost.length * 3.4 - 24} ${at.y - 10}) scale(0.8)`}>
                  {sign({ colour })}
                </g>
              )}
              <text
                x={at.x}
                y={at.y}
                textAnchor="middle"
                fontSize={11}
                fontWeight={600}
                fontFamily={MONO}
                fill={colour}
              >
                {cost}
              </text>
            </g>
          );
        })}
      {rows === 0 &&
        knots.map(({ label, colour }, i) => (
          <g key={label} transform={`translate(${left + 2 + i * 22} ${top - 13}) scale(0.85)`}>
            {Knot({ colour })}
          </g>
        ))}
      {box.attachments.map(
        ({ port, side, at, room }) =>
          box.labels[side] &&
          !isSheafEnd(port) &&
          room > 0 && (
            <text
              key={port}
              x={left + at.x + (side === 'left' ? 5 : side === 'right' ? -5 : 0)}
              y={top + at.y + (side === 'top' ? 10.5 : side === 'bottom' ? -4 : 3.5)}
              textAnchor={side === 'left' ? 'start' : side === 'right' ? 'end' : 'middle'}
              fontSize={10}
              fontFamily={MONO}
              fill="var(--ink-soft)"
            >
              {port.length > 5 ? `${port.slice(0, 4)}…` : port}
            </text>
          ),
      )}
      <Hosts box={box} design={design} />
    </g>
  );
}

function Hosts({ box, design }: { readonly box: Box; readonly design: Design }) {
  const at = hostsRectangle(box);
  if (!at) return null;
  const own = design.hosts.filter((host) => host.attach.some((end) => end.switch === box.id));
  const shown = own.length <= box.hosts.rows ? own : own.slice(0, box.hosts.rows - 1);
  const first = at.y + (box.hostSide === 'bottom' ? 5 : 0);
  const more = own.length - shown.length;
  return (
    <g fontSize={11} fill="var(--ink-soft)">
      <path d={`M${at.x} ${at.y}V${at.y + at.height}`} stroke="var(--rule-strong)" strokeWidth={1.2} />
      {shown.map((host, i) => (
        <text key={host.id} x={at.x + 10} y={first + i * HOST_ROW + 12}>
          {host.attach
            .filter((end) => end.switch === box.id)
            .map((end) => end.port)
            .join('+')}{' '}
          {(host.name ?? host.id).slice(0, 26)} {host.vlan}
        </text>
      ))}
      {more > 0 && (
        <text x={at.x + 10} y={first + shown.length * HOST_ROW + 12}>
          {shown.length === 0 ? counted(more, 'host') : `${more} more`}
        </text>
      )}
    </g>
  );
}

function GroupBox({ box, filled, of: { solution, trees } }: BoxProps & { readonly filled: Filled }) {
  const { x, y } = box.centre;
  const [left, top] = [x - box.width / 2, y - box.height / 2];
  const rows = [
    ...trees.flatMap((id) => {
      const tree = solution ? treeOf(solution, id) : undefined;
      if (!solution || !tree) return [];
      const { root, blocked } = insideOf(solution, tree, filled.switches);
      const { colour } = strandStyle(solution.trees.indexOf(tree));
      const at = root === null ? undefined : solution.network.switchIndex.get(root);
      const label = trees.length > 1 ? `${treeLabel(id)}: ` : '';
      return [
        { text: `${label}${blocked} block`, colour },
        ...(at === undefined ? [] : [{ text: `root ${nameOf(solution.network.switches[at]!)}`, colour: 'var(--ink)' }]),
      ];
    }),
    { text: counted(filled.switches.length, 'switch', 'switches'), colour: 'var(--ink-soft)' },
  ].slice(0, box.rows);
  const first = y - (rows.length * 16) / 2;
  return (
    <g>
      <rect
        x={left + 3.5}
        y={top + 3.5}
        width={box.width}
        height={box.height}
        rx={9}
        fill="var(--paper)"
        stroke="var(--ink-soft)"
      />
      <rect
        x={left}
        y={top}
        width={box.width}
        height={box.height}
        rx={9}
        fill="var(--raised)"
        stroke="var(--ink)"
        strokeWidth={1.6}
      />
      {box.name !== null && (
        <text x={x} y={first + 4} textAnchor="middle" fontSize={box.tight ? 12 : 14} fontWeight={700} fill="var(--ink)">
          {box.name}
        </text>
      )}
      {rows.map(({ text, colour }, i) => (
        <text
          key={text}
          x={x}
          y={first + 20 + i * 16}
          textAnchor="middle"
          fontSize={11}
          fontWeight={600}
          fontFamily={MONO}
          fill={colour}
        >
          {text}
        </text>
      ))}
    </g>
  );
}
