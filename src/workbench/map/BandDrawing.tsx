/** The band of a bundle. Pure: on the screen and in pictures alike. */
import type { Point } from './drawn';
import { polyline } from './run';

interface Props {
  readonly points: readonly Point[];
  readonly up: boolean;
  /** In the Bundle view, where it is what one looks at. */
  readonly strong: boolean;
}

export const bandWidth = (strong: boolean): number => (strong ? 9 : 6);

export function BandDrawing({ points, up, strong }: Props) {
  const width = bandWidth(strong);
  const line = { d: polyline(points), strokeLinecap: 'round', strokeLinejoin: 'round', fill: 'none' } as const;
  return (
    <>
      <path {...line} stroke="var(--ink)" strokeWidth={width} strokeOpacity={strong ? 1 : 0.75} />
      {/* A band that is not closed: the bundle is down. */}
      {!up && <path {...line} stroke="var(--paper)" strokeWidth={width - 3} />}
    </>
  );
}
