/** Boxes of a picture: switches with what they say, their hosts, and folded groups. Pure. */
import type { Filled } from '../../../core/analysis/groups/groups';
import { insideOf } from '../../../core/analysis/groups/counts';
import type { Design } from '../../../core/model/document';
import { treeLabel } from '../../../core/model/ids';
import { nameOf } from '../../../core/model/names';
import { treeOf } from '../../../core/tree/settled';
import { strandStyle } from '../../ui/strandStyle';
import { counted } from '../../../core/base/words';
import type { Box } from '../drawn';
import { figuresKey, readFigures } from '../figures';
import { isSheafEnd } from '../folded';
import { hostsRectangle, HOST_ROW } from '../hosts';
import { Knot, Loop } from '../knots';
import type { PictureOf } from './pictureOf';

const MONO = 'var(--mono)';

interface BoxProps {
  readonly box: Box;
  readonly of: PictureOf;
}

export function SwitchBox({ box, of: { design, solution, trees } }: BoxProps) {
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
          const across =
            figures.length === 1 ? (sign ? 11 : 0) : ((i % 2 === 0 ? -1 : 1) * box.width) / 4 + (sign ? 9 : 0);
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

export function GroupBox({ box, filled, of: { solution, trees } }: BoxProps & { readonly filled: Filled }) {
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
        { text: `${label}${blocked} ${blocked === 1 ? 'blocks' : 'block'}`, colour },
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
