/** One tree's strand along a link with both its ends, and short texts on the map. Pure: on the screen and in pictures alike. */
import { stateOf, type Role } from '../../core/tree/settled';
import { strandStyle } from '../ui/strandStyle';
import { ROLE_LETTERS } from '../ui/words/roles';
import type { EndState } from './glyphs/glyph';
import { glyphFor } from './glyphs/glyphs';
import type { Line } from './drawn';
import { BarredSquare } from './glyphs/barredSquare';
import { LETTER, TEXT, textSize, type LinkLabels } from './labels';
import { GuardBadge, Hexagon } from './glyphs/guardBadge';
import type { DrawnLink, GuardSign, LinkStrand } from './linkStrands';
import { atEnd, courseOf, type Course, type CourseEnd } from './run';

const NO_LETTERS = [null, null] as const;

/** On a link as short as this a guard's sign stands beside the barred square, not behind it. */
const SHORT = 64;

const cableWidth = (speed: number): number =>
  speed >= 100_000 ? 6 : speed >= 10_000 ? 4.5 : speed >= 1000 ? 2.5 : 1.5;

/** A link: its cable, the strands along it, and its texts. */
export function LinkDrawing({
  line,
  strands,
  text,
  dead,
  shut,
  speed,
  cabling,
  labels,
}: {
  readonly line: Line;
  readonly strands: readonly LinkStrand[];
  readonly text: string | null;
  readonly dead: boolean;
  readonly shut: DrawnLink['shut'];
  /** The faster end's speed, Mbit/s. */
  readonly speed: number;
  /** Cables alone, without trees. */
  readonly cabling: boolean;
  readonly labels: LinkLabels | undefined;
}) {
  const middle = courseOf(line, 0);
  return (
    <>
      <path
        d={middle.path(1, 1)}
        stroke={cabling ? 'var(--rule-strong)' : 'var(--cable)'}
        strokeWidth={cabling ? cableWidth(speed) : 1.3}
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
            letters={labels?.letters[strand.treeIndex] ?? NO_LETTERS}
            named={labels?.trees[strand.treeIndex] ?? null}
          />
        ))}
      {labels?.merged?.map(({ at, text: letter }, i) => (
        <MapLabel key={i} at={at} text={letter} colour="var(--ink)" size={TEXT.size} />
      ))}
      {[middle.from, middle.to].map((end, i) =>
        dead || shut[i] ? (
          <g key={i} data-shut={shut[i] ? '' : undefined}>
            <BarredSquare end={end} colour={shut[i] ? 'var(--ink)' : 'var(--ink-soft)'} />
            {shut[i] && <GuardBadge at={middle.length < SHORT ? atEnd(end, 9, 20) : atEnd(end, 25)} sign={shut[i]} />}
          </g>
        ) : null,
      )}
      {text !== null && labels?.text != null && (
        <MapLabel
          at={middle.along(labels.text)}
          text={text}
          colour={cabling ? 'var(--ink)' : 'var(--ink-soft)'}
          size={TEXT.size}
        />
      )}
    </>
  );
}

/** One tree's strand with both its ends. A strand on a link that blocks is thinner than one that carries frames. */
function Strand({
  strand,
  run,
  gap,
  letters,
  named,
}: {
  readonly strand: LinkStrand;
  readonly run: Course;
  /** To the strand beside it. */
  readonly gap: number;
  /** How far from either end its letter stands. */
  readonly letters: readonly [number | null, number | null];
  /** The share of the way at which its tree's name stands. */
  readonly named: number | null;
}) {
  const { colour, dash } = strandStyle(strand.treeIndex);
  const [a, b] = strand.roles;
  if (a === 'disabled' || b === 'disabled') return null;
  const carries = strand.states
    ? strand.states.every((state) => state === 'forwarding')
    : [a, b].every((role, i) => role !== null && !strand.disputed[i] && stateOf(role) === 'forwarding');
  const width = Math.min(carries ? 3 : 1.7, gap * 0.75);
  const known = [0, 1].map((i): EndState | null => {
    const role = strand.roles[i] ?? null;
    return role && { role, disputed: strand.disputed[i] ?? false, state: strand.states?.[i] };
  });
  const trims = known.map((end) => end && glyphFor(end).trim);
  // Where only one end carries the VLAN the strand peters out half-way.
  const d = trims[0] && trims[1] ? run.path(trims[0], trims[1]) : halfPath(run, trims[0] ? 'from' : 'to');
  const ends = [
    [run.from, strand.moved?.[0]],
    [run.to, strand.moved?.[1]],
  ] as const;
  return (
    <g>
      <path d={d} stroke={colour} strokeWidth={width} strokeDasharray={dash} fill="none" />
      {named !== null && carries && (
        <MapLabel at={run.along(named)} text={strand.label} colour={colour} size={TEXT.tree} />
      )}
      {ends.map(([end, was], i) => {
        const here = known[i];
        return here ? (
          <g key={i} data-end={here.role} data-state={here.state}>
            {glyphFor(here).draw({ ...here, end, colour, width })}
            {letters[i] != null && (
              <EndLetter
                end={end}
                role={here.role}
                was={was ?? null}
                guard={strand.guards[i] ?? null}
                colour={colour}
                away={letters[i]}
              />
            )}
          </g>
        ) : null;
      })}
    </g>
  );
}

function halfPath(run: Course, from: 'from' | 'to'): string {
  const [a, b] = [run[from].at, run.along(0.5)];
  const start = atEnd(run[from], 5);
  return `M${start.x} ${start.y}L${a.x + (b.x - a.x) * 0.8} ${a.y + (b.y - a.y) * 0.8}`;
}

/** The standard's letter on the strand; where the last change moved this end, inverted and with the letter before. */
function EndLetter({
  end,
  role,
  was,
  guard,
  colour,
  away,
}: {
  readonly end: CourseEnd;
  readonly role: Role;
  readonly was: Role | null;
  readonly guard: GuardSign | null;
  readonly colour: string;
  readonly away: number;
}) {
  const { x, y } = atEnd(end, away);
  if (guard?.acts) return <GuardBadge at={{ x, y }} sign={guard} />;
  const text = was && was !== role ? `${ROLE_LETTERS[was]}→${ROLE_LETTERS[role]}` : ROLE_LETTERS[role];
  const width = text.length > 1 ? LETTER.moved : LETTER.width;
  return (
    <g pointerEvents="none">
      {guard && <Hexagon at={{ x, y }} fill="var(--paper)" stroke={colour} />}
      <rect
        x={x - width / 2}
        y={y - LETTER.height / 2}
        width={width}
        height={LETTER.height}
        rx={2}
        fill={was ? colour : 'var(--paper)'}
      />
      <text
        x={x}
        y={y + 3.7}
        textAnchor="middle"
        fontSize={10.5}
        fontWeight={700}
        fontFamily="var(--mono)"
        fill={was ? 'var(--paper)' : colour}
      >
        {text}
      </text>
    </g>
  );
}

/** A short text on the map with the paper behind it. */
export function MapLabel({
  at,
  text,
  colour,
  size,
}: {
  readonly at: { x: number; y: number };
  readonly text: string;
  readonly colour: string;
  readonly size: number;
}) {
  const { width, height } = textSize(text, size);
  return (
    <g pointerEvents="none">
      <rect x={at.x - width / 2} y={at.y - height / 2} width={width} height={height} rx={2} fill="var(--paper)" />
      <text
        x={at.x}
        y={at.y + size * 0.36}
        textAnchor="middle"
        fontSize={size}
        fontWeight={600}
        fontFamily="var(--mono)"
        fill={colour}
      >
        {text}
      </text>
    </g>
  );
}
