/** A picture of the map as one SVG: laid out, labelled and drawn by what draws the map on the screen. Pure. */
import { treeName, type TreeId } from '../../../core/model/ids';
import { nameOf } from '../../../core/model/names';
import { islandRoots } from '../../../core/tree/explain/election';
import { treeOf, type Solution } from '../../../core/tree/settled';
import { strandStyle } from '../../ui/strandStyle';
import { ROLE_LETTERS } from '../../ui/words/roles';
import { drawingOf, MapDrawing, wholeOf } from './MapDrawing';
import type { PictureOf } from './pictureOf';

/** Around the drawing; height of the title above it, and of a row of the legend below it. */
const EDGE = { x: 24, y: 18, title: 34, row: 20 } as const;
const SANS = 'var(--sans)';

export function Picture(of: PictureOf) {
  const { trees, title, css } = of;
  const drawn = drawingOf(of);
  const { solution } = drawn.of;
  const drawing = of.view ?? wholeOf(drawn);
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
        <MapDrawing drawing={drawn} />
      </svg>
      {legend.map(({ id, name, roots, colour, dash }, i) => (
        <g key={id} transform={`translate(${EDGE.x} ${top + drawing.height + EDGE.y + i * EDGE.row})`} fontSize={12}>
          <path d="M0 0H34" stroke={colour} strokeWidth={3} strokeDasharray={dash} />
          <text x={44} y={4} fill="var(--ink)">
            {name}: {roots}
          </text>
        </g>
      ))}
      <text
        x={EDGE.x}
        y={top + drawing.height + EDGE.y + legend.length * EDGE.row + 4}
        fontSize={12}
        fill="var(--ink-soft)"
      >
        {drawn.cabling ? 'Cables with their speeds' : LETTERS}
      </text>
    </svg>
  );
}

const LETTERS = (['root', 'designated', 'alternate', 'backup'] as const)
  .map((role) => `${ROLE_LETTERS[role]} ${role}`)
  .join(', ');

/** Of each tree shown, how it is drawn and who is its root, of each of its islands. */
function legendOf(solution: Solution, trees: readonly TreeId[]) {
  return trees.flatMap((id) => {
    const tree = treeOf(solution, id);
    if (!tree) return [];
    const roots = islandRoots(solution.network, tree).map((s) => nameOf(solution.network.switches[s]!));
    const name = treeName(id);
    return [
      {
        id,
        name: name.slice(0, 1).toUpperCase() + name.slice(1),
        roots: roots.length > 0 ? `root ${roots.slice(0, 4).join(', ')}${roots.length > 4 ? ' …' : ''}` : 'no root yet',
        ...strandStyle(solution.trees.indexOf(tree)),
      },
    ];
  });
}
