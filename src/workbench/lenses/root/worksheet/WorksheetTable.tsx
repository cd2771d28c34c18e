'use client';
/** The worksheet: a tree worked out by hand, then held against the computed one. */
import { useWorkbench } from '../../../state/context';
import { FillSheet } from './FillSheet';
import { MarkedSheet } from './MarkedSheet';
import { StartSheet } from './StartSheet';

export function WorksheetTable() {
  const worksheet = useWorkbench((state) => state.worksheet);
  if (!worksheet) return <StartSheet />;
  return worksheet.marked ? <MarkedSheet marked={worksheet.marked} /> : <FillSheet {...worksheet} />;
}
