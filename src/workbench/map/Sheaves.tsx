'use client';
/** Bundles on the map: a band around the links that act as one, at the middle where both ends mean the same ones, else near the end that has it. */
import { means } from '../ui/means';
import { useMemo } from 'react';
import type { BundleEnd, Bundles } from '../../core/topology/lag/ends';
import type { SettledBundles } from '../../core/topology/lag/settled';
import type { Link } from '../../core/model/document';
import { useBundles } from '../state/useBundles';
import { useInstant } from '../state/clock';
import { useWorkbench, useWorkbenchStore } from '../state/context';
import { isSelected, type Item } from '../state/selection';
import type { Line, Point } from './geometry';
import { polyline } from './run';

interface Band {
  readonly end: BundleEnd;
  readonly up: boolean;
  readonly points: readonly Point[];
  readonly title: string;
}

/** How far beyond the outer links a band reaches. */
const OVER = 9;
/** Where a band stands that is one end's alone, from that end. */
const NEAR = 0.2;

export function Sheaves({ links, lines }: { readonly links: readonly Link[]; readonly lines: readonly Line[] }) {
  const { bundles, settled } = useBundles();
  const bundling = useWorkbench((state) => state.lens === 'Bundle');
  const bands = useMemo(() => bandsOf(links, lines, bundles, settled), [links, lines, bundles, settled]);
  const played = useInstant(({ picture }) => picture.network);
  const upNow = ({ end, up }: Band): boolean => {
    const port = played && end.owner.kind === 'switch' ? played.portIndexOf(end.owner.switch, end.owner.bundle) : -1;
    return played && port >= 0 ? played.live[port] === 1 : up;
  };
  return (
    <g>
      {bands.map((band) => (
        <BandView key={`${band.end.owner.kind} ${band.end.id}`} band={band} up={upNow(band)} strong={bundling} />
      ))}
    </g>
  );
}

function bandsOf(
  links: readonly Link[],
  lines: readonly Line[],
  { ends, members }: Bundles,
  settled: SettledBundles,
): Band[] {
  const place = new Map(links.map((link, i) => [link.id, i]));
  const done = new Set<string>();
  return ends.flatMap((end): Band[] => {
    const drawn = end.members.flatMap((m) => {
      const { link: id, at, far } = members[m]!;
      const i = id === null ? undefined : place.get(id);
      const line = i === undefined ? undefined : lines[i];
      return line ? [{ line, far, fromHere: links[i!]!.a.switch === at.switch && links[i!]!.a.port === at.port }] : [];
    });
    if (drawn.length === 0) return [];
    const others = new Set(drawn.map(({ far }) => (far < 0 ? -1 : members[far]!.end)));
    const [other = -1] = others;
    const far =
      others.size === 1 && other >= 0 && ends[other]!.members.length === end.members.length ? ends[other]! : null;
    const key = drawn
      .map(({ line }) => line.link)
      .sort()
      .join();
    if (far && done.has(key)) return [];
    if (far) done.add(key);
    const points = drawn.map(({ line: { from, to }, fromHere }) => {
      const share = far ? 0.5 : fromHere ? NEAR : 1 - NEAR;
      return { x: from.x + (to.x - from.x) * share, y: from.y + (to.y - from.y) * share };
    });
    const reason = settled.ends[end.index]!.reason;
    return [
      {
        end,
        up: settled.ends[end.index]!.up && (!far || settled.ends[far.index]!.up),
        points: reaching(points, drawn[0]!.line),
        title: `${end.ownerName}, bundle ${end.name}${far ? `; ${far.ownerName}, bundle ${far.name}` : ''}. ${reason}`,
      },
    ];
  });
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

function BandView({
  band: { end, points, title },
  up,
  strong,
}: {
  readonly band: Band;
  readonly up: boolean;
  readonly strong: boolean;
}) {
  const item: Item =
    end.owner.kind === 'switch'
      ? { kind: 'port', switch: end.owner.switch, port: end.owner.bundle }
      : { kind: 'host', host: end.owner.host };
  const selected = useWorkbench((state) => isSelected(state.selection, item));
  const store = useWorkbenchStore();
  const d = polyline(points);
  const width = strong ? 9 : 6;
  return (
    <g data-bundle={end.id} data-up={up}>
      {selected && (
        <path
          d={d}
          stroke="var(--accent)"
          strokeOpacity={0.35}
          strokeWidth={width + 10}
          strokeLinecap="round"
          fill="none"
        />
      )}
      <path
        d={d}
        stroke="var(--ink)"
        strokeWidth={width}
        strokeLinecap="round"
        strokeLinejoin="round"
        fill="none"
        strokeOpacity={strong ? 1 : 0.75}
      />
      {/* A band that is not closed: the bundle is down. */}
      {!up && (
        <path
          d={d}
          stroke="var(--paper)"
          strokeWidth={width - 3}
          strokeLinecap="round"
          strokeLinejoin="round"
          fill="none"
        />
      )}
      <path
        d={d}
        stroke="transparent"
        strokeWidth={20}
        strokeLinecap="round"
        fill="none"
        pointerEvents="stroke"
        style={{ cursor: 'pointer' }}
        onClick={(event) => store.getState().pick(item, means(event))}
      >
        <title>{title}</title>
      </path>
    </g>
  );
}
