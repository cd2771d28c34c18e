'use client';
/** Of a list of what is about a switch each, the one that is shown: chosen or selected last, else the first. */
import { useState } from 'react';
import { useWorkbench } from '../../state/context';
import { itemsOf } from '../../state/selection';

export function useSwitchOf<T>(all: readonly T[], idOf: (each: T) => string) {
  const selection = useWorkbench((state) => state.selection);
  const selected: string | undefined = itemsOf(selection).flatMap((item) => ('switch' in item ? [item.switch] : []))[0];
  const [chosen, setChosen] = useState<{ readonly id: string; readonly over: string | undefined } | null>(null);
  // What was chosen in the list holds until another one is selected.
  const wanted = chosen && chosen.over === selected ? chosen.id : selected;
  return {
    own: all.find((each) => idOf(each) === wanted) ?? all[0],
    choose: (id: string) => setChosen({ id, over: selected }),
  };
}
