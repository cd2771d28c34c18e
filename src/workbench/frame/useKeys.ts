'use client';
/** The workbench's keys. Keys typed into a field stay there. */
import { useEffect } from 'react';
import { useWorkbenchStore } from '../state/context';

export function useKeys(): void {
  const store = useWorkbenchStore();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement | null;
      if (target?.closest('input, textarea, [contenteditable], [role="dialog"]')) return;
      const { undo, redo, stepTree, select } = store.getState();
      const key = event.key.toLowerCase();
      const command = event.ctrlKey || event.metaKey;
      const run = command
        ? key === 'z' ? (event.shiftKey ? redo : undo) : key === 'y' ? redo : null
        : key === '[' ? () => stepTree(-1) : key === ']' ? () => stepTree(1) : key === 'escape' ? () => select(null) : null;
      if (!run) return;
      event.preventDefault();
      run();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [store]);
}
