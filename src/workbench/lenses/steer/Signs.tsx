/** What the Steer view adds to the map, for its legend. */
import { Sign } from '../../map/legend/Sign';

export const Signs = () => (
  <Sign says="dotted outline of a link or a port: a wish, it should carry or block">
    <path d="M4 10H52" stroke="var(--strand-0)" strokeWidth={1.7} />
    <rect x={6} y={3} width={44} height={14} rx={6} stroke="var(--accent)" strokeWidth={1.5} strokeDasharray="3 3" />
  </Sign>
);
