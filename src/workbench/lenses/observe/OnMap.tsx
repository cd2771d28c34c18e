'use client';
/** The network as it was read, on the map in place of the design: ends that are other than designed are marked. */
import type { Observation } from '../../../core/exchange/observation/observation';
import { useWorkbench, useWorkbenchStore } from '../../state/context';
import { TextButton } from '../../ui/TextButton';
import { lookAtObserved } from './observedTime';

export function OnMap({ observation }: { readonly observation: Observation }) {
  const store = useWorkbenchStore();
  const shown = useWorkbench((state) => state.looking.kind === 'observed');
  return (
    <TextButton
      aria-pressed={shown}
      title="roles and states as the switches told them; marked where they are not those of the design"
      onClick={() => {
        store.getState().look(null);
        if (!shown) lookAtObserved(store.getState(), observation, 'the network as it was read');
      }}
    >
      {shown ? 'show the design' : 'show it on the map'}
    </TextButton>
  );
}
