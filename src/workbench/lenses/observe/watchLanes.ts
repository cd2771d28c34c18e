/** The lanes of a watch: who was root when, who was silent, what was noticed, bundles and ports that changed. */
import type { Band, Mark, PortLane, Span } from '../../../core/exchange/observation/watch/band';
import { standsText, treesText, type EventKind } from '../../../core/exchange/observation/watch/events';
import type { Observation } from '../../../core/exchange/observation/observation';
import { timeText } from './timeText';

export interface WatchLane {
  readonly id: string;
  readonly label: string;
  readonly more: string;
  /** Where it is about a place: as events name it. */
  readonly place: { readonly source: string; readonly port: number | null } | null;
  readonly drawn:
    | { readonly as: 'spans'; readonly spans: readonly Span[] }
    | { readonly as: 'ports'; readonly of: PortLane }
    | { readonly as: 'marks'; readonly marks: readonly Mark[] };
}

/** Lanes of marks, in the order of harm. */
const MARKS: readonly (readonly [name: string, kinds: readonly EventKind[]])[] = [
  ['rules', ['rule']],
  ['topology changes', ['change']],
  ['signal and neighbours', ['signal', 'neighbour']],
  ['missed readings', ['missed']],
];

/** `trees`: whose ports have lanes; null: those of all. */
export function watchLanesOf(band: Band, last: Observation | null, trees: readonly string[] | null): WatchLane[] {
  const interfaces = new Map(
    last?.switches.flatMap(({ source, ports, bundles }) =>
      [...ports, ...bundles].map((port) => [`${source} ${port.number}`, port.interface] as const),
    ),
  );
  const interfaceOf = ({ source, port }: { readonly source: string; readonly port: number }): string =>
    interfaces.get(`${source} ${port}`) ?? `port ${port}`;
  const counts = new Map(last?.switches.map((sw) => [sw.source, sw.trees.length]));
  const treesOf = (of: PortLane): string => treesText(of.trees, counts.get(of.source) ?? 0).replace(/^VLANs? /, '');
  return [
    ...band.roots.map(({ name, spans }) => lane(`root ${name}`, 'root', name, { as: 'spans', spans })),
    ...band.silent.map(({ name, spans }) => lane(`silent ${name}`, name, 'silent', { as: 'spans', spans })),
    ...MARKS.flatMap(([name, kinds]) => {
      const marks = band.marks.filter(({ kind }) => kinds.includes(kind));
      return marks.length === 0 ? [] : [lane(name, name, '', { as: 'marks', marks })];
    }),
    ...band.bundles.map((of) => ({
      ...lane(`bundle ${of.source} ${of.port}`, `${of.switch} ${interfaceOf(of)}`, 'members', {
        as: 'spans',
        spans: of.spans,
      }),
      place: of,
    })),
    ...band.ports
      .filter((of) => trees === null || of.trees.some((tree) => trees.includes(tree)))
      .map((of) => ({
        ...lane(`port ${of.source} ${of.port} ${of.trees.join()}`, `${of.switch} ${interfaceOf(of)}`, treesOf(of), {
          as: 'ports',
          of,
        }),
        place: of,
      })),
  ];
}

/** What a lane shows, in words. */
export function laneText({ label, more, drawn }: WatchLane): string {
  const parts =
    drawn.as === 'spans'
      ? drawn.spans.map(({ from, text }) => `from ${timeText(from)} ${text}`)
      : drawn.as === 'ports'
        ? drawn.of.stretches.map(({ from, ...stands }) => `from ${timeText(from)} ${standsText(stands)}`)
        : drawn.marks.map(({ at, count }) => `at ${timeText(at)}: ${count}`);
  return `${label}${more === '' ? '' : `, ${more}`}: ${parts.join('; ')}`;
}

const lane = (id: string, label: string, more: string, drawn: WatchLane['drawn']): WatchLane => ({
  ...{ id, label, more, drawn },
  place: null,
});
