'use client';
/** The worksheet: a tree worked out by hand, then held against the computed one. */
import { useWorkbench } from '../../../state/context';
import { FillSheet } from './FillSheet';
import { MarkedSheet } from './MarkedSheet';
import { StartSheet } from './StartSheet';

export function WorksheetTable() {
  const looking = useWorkbench((state) => state.looking);
  const marked = useWorkbench((state) => state.marked);
  if (looking.kind === 'worksheet') return <FillSheet {...looking} />;
  return marked ? <MarkedSheet marked={marked} /> : <StartSheet />;
}
