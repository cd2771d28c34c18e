'use client';
/** In the Cable view, at the selected switch and at the one under the hand: its free ports, to pull a cable from or drop one on. */
import { freePortsOf } from '../../core/model/plugs';
import type { Switch } from '../../core/model/document';
import { useWorkbench } from '../state/context';
import { isSelected } from '../state/selection';
import { useCableDrag } from './cableDrag';
import styles from './map.module.css';

/** Most free ports shown; the rest are in the inspector. */
const MOST = 8;

export function FreePorts({ sw, side }: { readonly sw: Switch; readonly side: 'top' | 'bottom' }) {
  const { held, start } = useCableDrag();
  const selected = useWorkbench(
    ({ selection }) => selection?.kind === 'switch' && isSelected(selection, { kind: 'switch', switch: sw.id }),
  );
  const free = useWorkbench(({ design }) => {
    if (!selected && held?.over !== sw.id) return '';
    return freePortsOf(design, sw)
      .map((port) => port.id)
      .slice(0, MOST)
      .join('\n');
  });
  if (!selected && held?.over !== sw.id) return null;
  const ports = free === '' ? [] : (free.split('\n') as Switch['ports'][0]['id'][]);
  return (
    <div
      className={`${styles.free} ${side === 'top' ? styles.freeAbove : styles.freeBelow} nodrag nopan`}
      role="group"
      aria-label={`free ports of ${sw.name ?? sw.id}`}
    >
      {ports.map((port) => (
        <button
          key={port}
          type="button"
          tabIndex={-1}
          data-plug={port}
          title={`free port ${port}: pull a cable from it`}
          onPointerDown={(event) => start({ switch: sw.id, port, link: null }, event)}
        >
          {port.length > 6 ? `${port.slice(0, 5)}…` : port}
        </button>
      ))}
      <button
        type="button"
        tabIndex={-1}
        title="pull a cable from here; a port is added if none is free"
        onPointerDown={(event) => start({ switch: sw.id, port: null, link: null }, event)}
      >
        new cable
      </button>
    </div>
  );
}
