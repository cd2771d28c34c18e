'use client';
/** One link on the map: its cable, the strands along it, their ends. Redrawn only when its own picture changes. */
import { means } from '../ui/means';
import { memo, type MouseEvent } from 'react';
import type { Link } from '../../core/model/document';
import { speedText } from '../ui/words/units';
import { roleSentence } from '../ui/words/roles';
import { useClock, useInstant } from '../state/clock';
import { useWorkbench, useWorkbenchStore } from '../state/context';
import { isSelected } from '../state/selection';
import type { Line, Point } from './drawn';
import type { LinkLabels } from './labels';
import { useSame } from '../state/useSame';
import { answeredOn, drawnLink, linkText, outlinedOn, type LinkStrand } from './linkStrands';
import { useFrayDrag } from './frayDrag';
import { atEnd, polyline, courseOf, type Course, type CourseEnd } from './run';
import { LinkDrawing, MapLabel } from './StrandView';
import { mayEdit } from '../state/looking';

interface Props {
  readonly link: Link;
  readonly line: Line;
  /** The faster end's speed, Mbit/s. */
  readonly speed: number;
  /** Where there is room for what it says; undefined before that is known. */
  readonly labels: LinkLabels | undefined;
}

export const LinkView = memo(function LinkView({ link, line, speed, labels }: Props) {
  const settled = useWorkbench(useSame((state) => drawnLink(state, link)));
  const shownTrees = useWorkbench((state) => state.shownTrees);
  const played = useInstant(
    useSame(({ picture, instant }) => drawnLink({ solution: picture, shownTrees, moved: null }, link, instant)),
  );
  const { dead, shut, strands } = played ?? settled;
  const cabling = useWorkbench((state) => state.lens === 'Cable');
  const selected = useWorkbench((state) => isSelected(state.selection, { kind: 'link', link: link.id }));
  const outlined = useWorkbench(useSame((state) => outlinedOn(state, link)));
  const breaking = useWorkbench((state) => state.lens === 'Break');
  const followed = useClock(
    ({ way }) => breaking && way?.arrives === true && way.hops.some((hop) => hop.link === link.id),
  );
  const answered = useWorkbench(useSame((state) => answeredOn(state, link)));
  const store = useWorkbenchStore();
  const middle = courseOf(line, 0);
  const text = linkText(link, speed, { dead, shut }, cabling);
  // Either end is its own to click.
  const clickable = Math.min(26, middle.length / 4);
  const choose = (event: MouseEvent) => store.getState().pick({ kind: 'link', link: link.id }, means(event));
  const name = `${link.a.switch} port ${link.a.port} to ${link.b.switch} port ${link.b.port}`;
  return (
    <g data-link={link.id} data-run={cabling ? undefined : `${line.from.x} ${line.from.y} ${line.to.x} ${line.to.y}`}>
      {followed && (
        <path
          d={middle.path(2, 2)}
          stroke="var(--ink)"
          strokeOpacity={0.2}
          strokeWidth={strands.length * line.gap + 14}
          fill="none"
          strokeLinecap="round"
          data-followed=""
        />
      )}
      {outlined.includes('link') && (
        <Outline d={polyline(bandAround(middle, 6, strands.length * line.gap + 18), true)} />
      )}
      {selected && (
        <path
          d={middle.path(2, 2)}
          stroke="var(--accent)"
          strokeOpacity={0.28}
          strokeWidth={strands.length * line.gap + 12}
          fill="none"
          strokeLinecap="round"
        />
      )}
      <LinkDrawing {...{ line, strands, text, dead, shut, speed, cabling, labels }} />
      {answered &&
        [middle.from, middle.to].map((end, i) => (
          <MapLabel
            key={i}
            at={atEnd(end, 20)}
            text={answered[i] ?? '?'}
            colour={answered[i] === '?' ? 'var(--ink-soft)' : 'var(--ink)'}
            size={12}
          />
        ))}
      <path
        d={middle.path(clickable, clickable)}
        stroke="transparent"
        strokeWidth={Math.max(14, strands.length * line.gap + 8)}
        fill="none"
        pointerEvents="stroke"
        style={{ cursor: 'pointer' }}
        onClick={choose}
      >
        <title>{`${name}, ${speedText(speed)}${dead ? ', no signal' : ''}`}</title>
      </path>
      {(
        [
          ['a', middle.from],
          ['b', middle.to],
        ] as const
      ).map(([side, end]) => (
        <EndTarget
          key={side}
          link={link}
          side={side}
          end={end}
          reach={clickable + 4}
          gap={line.gap}
          strands={strands}
          outlined={outlined.includes(side)}
        />
      ))}
    </g>
  );
});

/** A dashed outline around what stands out. */
function Outline({ d }: { readonly d: string }) {
  return <path d={d} stroke="var(--accent)" strokeWidth={1.5} strokeDasharray="3 3" fill="none" pointerEvents="none" />;
}

/** The corners of a band around a run, from one end to the other. */
const bandAround = ({ from, to }: Course, inset: number, width: number): Point[] => [
  atEnd(from, inset, -width / 2),
  atEnd(from, inset, width / 2),
  atEnd(to, inset, -width / 2),
  atEnd(to, inset, width / 2),
];

interface EndProps {
  readonly link: Link;
  readonly side: 'a' | 'b';
  readonly end: CourseEnd;
  /** How far from the box it may be clicked. */
  readonly reach: number;
  readonly gap: number;
  readonly strands: readonly LinkStrand[];
  readonly outlined: boolean;
}

/** Where to click for a port; in the Steer view a frayed end can be pulled from here to the link that should block instead. */
function EndTarget({ link, side, end, reach, gap, strands, outlined }: EndProps) {
  const at = link[side];
  const pullFray = useFrayDrag();
  const steering = useWorkbench((state) => state.lens === 'Steer' && mayEdit(state));
  const frayed = steering
    ? strands.filter(({ roles }) => ['alternate', 'backup'].includes(roles[side === 'a' ? 0 : 1] ?? ''))
    : [];
  const selected = useWorkbench(({ selection }) =>
    isSelected(selection, { kind: 'port', switch: at.switch, port: at.port }),
  );
  const { pick } = useWorkbenchStore().getState();
  const width = Math.max(18, strands.length * gap + 8);
  const corners = [
    atEnd(end, 1, -width / 2),
    atEnd(end, reach, -width / 2),
    atEnd(end, reach, width / 2),
    atEnd(end, 1, width / 2),
  ];
  const roles = strands.map((strand) => roleSentence(strand.roles[side === 'a' ? 0 : 1], strand.label)).join(', ');
  return (
    <>
      {outlined && <Outline d={polyline(corners, true)} />}
      <path
        className={frayed.length > 0 ? 'nopan' : undefined}
        onPointerDown={(event) =>
          frayed.length > 0 &&
          pullFray({ link: link.id, side, treeIndices: frayed.map((strand) => strand.treeIndex) }, event)
        }
        data-side={side}
        data-frayed={frayed.length > 0 ? '' : undefined}
        d={`M${corners.map((p) => `${p.x} ${p.y}`).join('L')}Z`}
        fill={selected ? 'var(--accent)' : 'transparent'}
        fillOpacity={0.14}
        stroke={selected ? 'var(--accent)' : 'none'}
        strokeWidth={1.5}
        pointerEvents="all"
        style={{ cursor: frayed.length > 0 ? 'grab' : 'pointer' }}
        onClick={(event) => pick({ kind: 'port', switch: at.switch, port: at.port }, means(event))}
      >
        <title>{`${at.switch} port ${at.port}${roles ? `: ${roles}` : ''}${frayed.length > 0 ? '; pull it to the link that should block instead' : ''}`}</title>
      </path>
    </>
  );
}
