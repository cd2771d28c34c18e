'use client';
/** The band of time of a watch: who was root when, who was silent, what happened; any moment of it is shown on the map. */
import { useEffect, useMemo, useState } from 'react';
import type { WatchView } from '../../../contract/observe';
import { bandOf, type Lane } from '../../../core/exchange/observation/watch/band';
import type { EventKind } from '../../../core/exchange/observation/watch/events';
import { rootsOf } from '../../../core/exchange/observation/watch/events';
import { observationSchema, type Observation } from '../../../core/exchange/observation/observation';
import { api } from '../../state/api';
import { useWorkbench, useWorkbenchStore } from '../../state/context';
import { TextButton } from '../../ui/TextButton';
import { useInstant } from './instant';
import room from './observe.module.css';
import { timeText } from './timeText';

/** From one moment that is played to the next. */
const STEP_MS = 900;

/** Lanes of marks, in the order of harm. */
const LANES: readonly (readonly [name: string, kinds: readonly EventKind[]])[] = [
  ['rules', ['rule']],
  ['ports', ['root', 'signal', 'port', 'neighbour']],
  ['topology changes', ['change']],
  ['members', ['member']],
  ['missed', ['missed']],
];

export function WatchBand({ view }: { readonly view: WatchView }) {
  const { show, shown } = useInstant();
  const store = useWorkbenchStore();
  const last = useLastReading(view.last);
  const [playing, setPlaying] = useState(false);
  const from = view.first!;
  const to = Math.max(view.last!, from + 1000);
  const band = useMemo(() => {
    const events = view.events.map((event) => ({ at: event.at, event }));
    const names = new Map(last?.switches.map((sw) => [sw.mac, sw.name || sw.source]));
    const roots = new Map(last ? [...rootsOf(last)].map(([tree, mac]) => [tree, names.get(mac) ?? mac]) : []);
    return bandOf(events, roots, from, to);
  }, [view.events, last, from, to]);
  const moments = useMemo(() => [...new Set(view.events.map(({ at }) => at))].sort((a, b) => a - b), [view.events]);
  const now = shown ?? view.last!;
  const next = moments.find((at) => at > now);
  const before = moments.findLast((at) => at < now);
  useEffect(() => {
    if (!playing) return undefined;
    const timer = setTimeout(() => {
      if (next === undefined) setPlaying(false);
      else void show(next);
    }, STEP_MS);
    return () => clearTimeout(timer);
  }, [playing, next, show]);
  const place = (at: number): string => `${((Math.min(to, Math.max(from, at)) - from) / (to - from)) * 100}%`;
  return (
    <section className={room.band} aria-label="Band of time">
      <div className={room.line}>
        <TextButton disabled={before === undefined} onClick={() => void show(before!)}>
          event before
        </TextButton>
        <TextButton
          aria-pressed={playing}
          disabled={moments.length === 0}
          onClick={() => {
            if (!playing && next === undefined) void show(moments[0]!);
            setPlaying(!playing);
          }}
        >
          {playing ? 'stop playing' : 'play the events'}
        </TextButton>
        <TextButton disabled={next === undefined} onClick={() => void show(next!)}>
          event after
        </TextButton>
        <span role="status">{shown === null ? 'The map shows the design.' : `The map shows ${timeText(shown)}.`}</span>
        {shown !== null && (
          <TextButton does="plain" onClick={() => store.getState().look(null)}>
            go back to now
          </TextButton>
        )}
      </div>
      <div className={room.lanes}>
        {band.roots.map((lane) => (
          <LaneRow key={`root ${lane.name}`} name={`root, ${lane.name}`} lane={lane} place={place} />
        ))}
        {band.silent.map((lane) => (
          <LaneRow key={`silent ${lane.name}`} name={lane.name} lane={lane} place={place} />
        ))}
        {LANES.map(([name, kinds]) => {
          const own = band.marks.filter(({ kind }) => kinds.includes(kind));
          return own.length === 0 ? null : (
            <div key={name} className={room.lane}>
              <span className={room.laneName}>{name}</span>
              <span className={room.track}>
                {own.map((mark) => (
                  <i
                    key={`${mark.kind} ${mark.at}`}
                    className={room.mark}
                    style={{ left: place(mark.at), height: `${Math.min(100, 40 + mark.count * 12)}%` }}
                  />
                ))}
              </span>
            </div>
          );
        })}
        <div className={room.lane}>
          <span className={room.laneName}>{timeText(from)}</span>
          <input
            className={room.slider}
            type="range"
            aria-label="Moment on the map"
            aria-valuetext={timeText(now)}
            min={from}
            max={to}
            step={1000}
            value={now}
            onChange={(event) => {
              setPlaying(false);
              void show(Number(event.target.value));
            }}
          />
          <span>{timeText(to)}</span>
        </div>
      </div>
    </section>
  );
}

function LaneRow({
  name,
  lane,
  place,
}: {
  readonly name: string;
  readonly lane: Lane;
  readonly place: (at: number) => string;
}) {
  return (
    <div className={room.lane}>
      <span className={room.laneName} title={name}>
        {name}
      </span>
      <span className={room.track}>
        {lane.spans.map((span) => (
          <b
            key={span.from}
            className={room.span}
            title={`${span.text}, ${timeText(span.from)} to ${timeText(span.to)}`}
            style={{ left: place(span.from), right: `calc(100% - ${place(span.to)})` }}
          >
            {span.text}
          </b>
        ))}
      </span>
    </div>
  );
}

/** Who is root at the end is in the last reading. */
function useLastReading(at: number | null): Observation | null {
  const id = useWorkbench((state) => state.id);
  const [reading, setReading] = useState<Observation | null>(null);
  useEffect(() => {
    if (at === null) return undefined;
    let gone = false;
    void api.readingAt(id, at).then((answer) => {
      const read = answer.ok ? observationSchema.safeParse(answer.value.observation) : null;
      if (!gone && read?.success) setReading(read.data);
    });
    return () => {
      gone = true;
    };
  }, [id, at]);
  return reading;
}
