'use client';
/** The workbench's keys. Keys typed into a field stay there; copy and paste go over the system's clipboard. */
import { useEffect } from 'react';
import { actionFor } from './actions';
import { copiedText, pasteText } from '../state/editing';
import { useWorkbenchStore } from '../state/context';

const FIELDS =
  'input:not([type="checkbox"]), textarea, select, [contenteditable], [role="dialog"], [role="alertdialog"]';
/** Keys that a table needs for itself: for its cells' texts, and to walk, clear and copy them. */
const tableKey = (event: KeyboardEvent): boolean => {
  if (!(event.target instanceof Element) || !inTable(event.target)) return false;
  if (event.ctrlKey || event.metaKey) return event.key.toLowerCase() === 'a';
  return event.key.length > 1 || event.target.closest('.MuiDataGrid-cell--editable') !== null;
};

const elsewhere = (target: EventTarget | null): boolean => target instanceof Element && target.closest(FIELDS) !== null;

const inTable = (target: EventTarget | null): boolean =>
  target instanceof Element && target.closest('[role="grid"]') !== null;

export function useKeys(tell: (text: string) => void): void {
  const store = useWorkbenchStore();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const palette = (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k';
      if (elsewhere(event.target) && !palette) return;
      if (tableKey(event)) return;
      const action = actionFor(event, store.getState());
      if (!action) return;
      event.preventDefault();
      action.run(store.getState());
    };
    const onCopy = (event: ClipboardEvent) => {
      if (elsewhere(event.target) || inTable(event.target) || (window.getSelection()?.toString() ?? '') !== '') return;
      const text = copiedText(store.getState());
      if (text === null) return;
      event.clipboardData?.setData('text/plain', text);
      event.preventDefault();
      tell('Copied. Paste puts it beside what is there, in this design or another.');
    };
    const onPaste = (event: ClipboardEvent) => {
      const text = event.clipboardData?.getData('text/plain');
      if (elsewhere(event.target) || !text) return;
      const refused = pasteText(store.getState(), text);
      if (refused !== null) tell(refused);
    };
    window.addEventListener('keydown', onKey);
    window.addEventListener('copy', onCopy);
    window.addEventListener('paste', onPaste);
    return () => {
      window.removeEventListener('keydown', onKey);
      window.removeEventListener('copy', onCopy);
      window.removeEventListener('paste', onPaste);
    };
  }, [store, tell]);
}
