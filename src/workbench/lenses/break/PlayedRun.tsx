'use client';
/** The run on the map: the clock turns while it plays, and BPDUs are on their way. */
import type { LayerProps } from '../../map/geometry';
import { MapLayer } from '../../map/MapLayer';
import { useFar } from '../../map/seen';
import { Pulses } from './Pulses';
import { usePlaying } from './usePlaying';

export function PlayedRun({ lines }: LayerProps) {
  usePlaying();
  const far = useFar();
  return far ? null : (
    <MapLayer level={-1}>
      <Pulses lines={lines} />
    </MapLayer>
  );
}
