'use client';
/** The time of a watch, played as the clock plays a run: its map is the network as it was read last at the instant. */
import { useCallback, useEffect, useMemo, useRef } from 'react';
import { create } from 'zustand';
import type { KeptEvent, WatchView } from '../../../contract/observe';
import { matchPorts, matchSwitches } from '../../../core/exchange/observation/match';
import { observationSchema, type Observation } from '../../../core/exchange/observation/observation';
import { asObserved } from '../../../core/exchange/observation/onMap';
import type { Design } from '../../../core/model/document';
import type { Micros } from '../../../core/modes/entity';
import { movedEnds } from '../../../core/tree/moved';
import { api } from '../../state/api';
import type { Speed } from '../../state/clock';
import { useWorkbench, useWorkbenchStore } from '../../state/context';
import { movedOf } from '../../state/moved';
import { useObservation } from '../../state/observation';
import type { Item } from '../../state/selection';
import type { ClockControls, Workbench } from '../../state/workbench';
import { useTurning, type Played, type Turned } from '../shared/time/played';
import { timeText } from './timeText';

interface Hand {
  /** The moment that the map shows, or will as soon as it is there, milliseconds since 1970; null: another thing. */
  readonly at: number | null;
  readonly playing: Speed | null;
}
const useStore = create<Hand>(() => ({ at: null, playing: null }));

/** Events a second where each is to be seen. */
const RATE = 1.1;

/** Shows a reading in place of the design, which is looked at now; ends that are other than designed marked. */
export function lookAtObserved(state: Workbench, observation: Observation, label: string): void {
  const { design, solution, revision, look } = state;
  const told = asObserved(design, observation);
  look({
    ...{ kind: 'observed', label, revision, design: told.network.design, solution: told },
    moved: solution && movedOf(label, movedEnds(solution, told), 'comparison'),
  });
}

export interface ObservedTime extends Played {
  /** Milliseconds since 1970; null where the map shows another thing. */
  readonly shown: number | null;
  /** Shows a moment; what an event is about is selected, where that is a place. */
  readonly show: (at: number, event?: KeptEvent) => void;
  /** When something happened, in rising order. */
  readonly moments: readonly Micros[];
}

/** Of a watch of which something was read; `from`: when its time begins, milliseconds since 1970. */
export function useObservedTime({ last, events }: WatchView, from: number): ObservedTime {
  const { at, playing } = useStore();
  const end = last!;
  const until = (Math.max(end, from + 1000) - from) * 1000;
  const moments = useMemo(
    () => [...new Set(events.map((event) => (event.at - from) * 1000))].sort((a, b) => a - b),
    [events, from],
  );
  const put = useReading();
  const show = useCallback(
    (moment: number, event?: KeptEvent) => {
      useStore.setState({ at: moment });
      put(Math.round(moment), event);
    },
    [put],
  );
  const seek = useCallback((t: Micros) => show(from + Math.min(t, until) / 1000), [show, from, until]);
  const now = useCallback((): Micros => ((useStore.getState().at ?? end) - from) * 1000, [end, from]);
  const next = useCallback((t: Micros) => moments.find((moment) => moment > t) ?? null, [moments]);
  const step = useCallback(
    (by: 1 | -1) => {
      halt();
      const to = by > 0 ? next(now()) : moments.findLast((moment) => moment < now());
      if (to !== null && to !== undefined) seek(to);
    },
    [moments, next, now, seek],
  );
  const play = useCallback(
    (speed: Speed | null) => {
      // From the start, where there is no more to come.
      if (typeof speed === 'number' && now() >= until) seek(0);
      if (speed === 'changes' && next(now()) === null) seek(moments[0] ?? 0);
      useStore.setState({ playing: speed });
    },
    [until, next, now, seek, moments],
  );
  useTurning(
    playing,
    RATE,
    useCallback((): Turned => ({ t: now(), until, next, playTo: seek, halt }), [now, until, next, seek]),
  );
  useGivenBack();
  useKeys({ step, play, seek });
  const text = useCallback((t: Micros) => timeText(from + t / 1000), [from]);
  return { t: ((at ?? end) - from) * 1000, until, playing, seek, step, play, text, shown: at, show, moments };
}

const halt = (): void => useStore.setState({ playing: null });

/** Where the map is given back to the design, or the watch is left, nothing plays on. */
function useGivenBack(): void {
  const isShown = useWorkbench((state) => state.looking.kind === 'observed');
  const was = useRef(true);
  useEffect(() => {
    if (was.current && !isShown) useStore.setState({ at: null, playing: null });
    was.current = isShown;
  }, [isShown]);
  useEffect(() => halt, []);
}

/** The clock's keys turn this time while it is there. */
function useKeys({ step, play, seek }: Pick<Played, 'step' | 'play' | 'seek'>): void {
  const store = useWorkbenchStore();
  useEffect(() => {
    const controls: ClockControls = {
      ready: () => true,
      step,
      playOrHalt: () => play(useStore.getState().playing === null ? 'changes' : null),
      toStart: () => seek(0),
    };
    store.setState(({ clocks }) => ({ clocks: new Map(clocks).set('Observe', controls) }));
    return () =>
      store.setState(({ clocks }) => ({ clocks: new Map([...clocks].filter(([, own]) => own !== controls)) }));
  }, [store, step, play, seek]);
}

interface Wish {
  readonly at: number;
  readonly event?: KeptEvent | undefined;
}

/** Puts what was read last at a moment on the map: one reading is asked for at a time, then the one wished for last. */
function useReading(): (at: number, event?: KeptEvent) => void {
  const store = useWorkbenchStore();
  const { hold } = useObservation();
  const wish = useRef<Wish | null>(null);
  const busy = useRef(false);
  /** What is on the map holds from when until when; not known for the last one. */
  const held = useRef<{ readonly from: number; readonly to: number } | null>(null);
  const isThere = useRef(true);
  useEffect(() => {
    isThere.current = true;
    return () => {
      isThere.current = false;
    };
  }, []);
  return useCallback(
    (at: number, event?: KeptEvent) => {
      const isOnMap = held.current && store.getState().looking.kind === 'observed';
      if (!event && !busy.current && isOnMap && at >= held.current!.from && at < held.current!.to) return;
      wish.current = { at, event };
      if (busy.current) return;
      busy.current = true;
      void (async () => {
        for (let mine = wish.current; mine; mine = wish.current === mine ? null : wish.current) {
          const answer = await api.readingAt(store.getState().id, mine.at);
          // The watch was left meanwhile, or the map given back.
          if (!isThere.current || useStore.getState().at === null) break;
          const read = answer.ok ? observationSchema.safeParse(answer.value.observation) : null;
          if (!answer.ok || !read?.success) continue;
          const from = Date.parse(read.data.at);
          held.current = { from, to: answer.value.next ?? mine.at };
          hold(read.data);
          store.getState().look(null);
          lookAtObserved(store.getState(), read.data, `the network as it was read at ${timeText(from)}`);
          const item = mine.event && placeOf(store.getState().design, read.data, mine.event);
          if (item) store.getState().select(item);
        }
        busy.current = false;
      })();
    },
    [store, hold],
  );
}

/** Of an event or a lane, in the design; null where there is none. */
export function placeOf(
  design: Design,
  observation: Observation,
  { source, port }: Pick<KeptEvent, 'source' | 'port'>,
): Item | null {
  const pair = matchSwitches(design, observation).pairs.find(({ observed }) => observed.source === source);
  if (!pair) return null;
  const place = port === null ? undefined : matchPorts(design, pair).get(port);
  return place
    ? { kind: 'port', switch: pair.designed.id, port: place.of.id }
    : { kind: 'switch', switch: pair.designed.id };
}
