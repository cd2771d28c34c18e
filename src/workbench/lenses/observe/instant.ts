'use client';
/** A moment of a watch on the map: the network as it was read last then. */
import { useCallback } from 'react';
import { create } from 'zustand';
import type { KeptEvent } from '../../../contract/observe';
import { matchPorts, matchSwitches } from '../../../core/exchange/observation/match';
import { observationSchema, type Observation } from '../../../core/exchange/observation/observation';
import { asObserved } from '../../../core/exchange/observation/onMap';
import type { Design } from '../../../core/model/document';
import { movedEnds } from '../../../core/tree/moved';
import { api } from '../../state/api';
import { useWorkbench, useWorkbenchStore } from '../../state/context';
import { movedOf } from '../../state/moved';
import { useObservation } from '../../state/observation';
import type { Item } from '../../state/selection';
import { timeText } from './timeText';
import type { Workbench } from '../../state/workbench';

const useStore = create<{ readonly at: number | null }>(() => ({ at: null }));
/** Answers that come after a later wish are of no use. */
let wish = 0;

/** Shows a reading in place of the design, which is looked at now; ends that are other than designed marked. */
export function lookAtObserved(state: Workbench, observation: Observation, label: string): void {
  const { design, solution, revision, look } = state;
  const told = asObserved(design, observation);
  look({
    ...{ kind: 'observed', label, revision, design: told.network.design, solution: told },
    moved: solution && movedOf(label, movedEnds(solution, told), 'comparison'),
  });
}

interface Instant {
  /** The moment that the map shows; null where it shows another thing. */
  readonly shown: number | null;
  /** `event`: what is selected, where it is about a place. */
  readonly show: (at: number, event?: KeptEvent) => Promise<void>;
}

export function useInstant(): Instant {
  const store = useWorkbenchStore();
  const { hold } = useObservation();
  const isShown = useWorkbench((state) => state.looking.kind === 'observed');
  const at = useStore((state) => state.at);
  const show = useCallback(
    async (moment: number, event?: KeptEvent) => {
      wish += 1;
      const mine = wish;
      const answer = await api.readingAt(store.getState().id, moment);
      const read = answer.ok ? observationSchema.safeParse(answer.value.observation) : null;
      if (!read?.success || mine !== wish) return;
      hold(read.data);
      store.getState().look(null);
      lookAtObserved(
        store.getState(),
        read.data,
        `the network as it was read at ${timeText(Date.parse(read.data.at))}`,
      );
      useStore.setState({ at: moment });
      const item = event && placeOf(store.getState().design, read.data, event);
      if (item) store.getState().select(item);
    },
    [store, hold],
  );
  return { shown: isShown ? at : null, show };
}

/** Of an event, in the design. */
function placeOf(design: Design, observation: Observation, { source, port }: KeptEvent): Item | null {
  const pair = matchSwitches(design, observation).pairs.find(({ observed }) => observed.source === source);
  if (!pair) return null;
  const place = port === null ? undefined : matchPorts(design, pair).get(port);
  return place
    ? { kind: 'port', switch: pair.designed.id, port: place.of.id }
    : { kind: 'switch', switch: pair.designed.id };
}
