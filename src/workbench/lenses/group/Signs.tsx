/** What the Group view adds to the map, for its legend. */
import { Sign } from '../../map/legend/Sign';

export const Signs = () => (
  <Sign says="shaded switches and links with a letter: one region">
    <rect x={6} y={1} width={44} height={18} rx={6} fill="var(--strand-3)" fillOpacity={0.2} stroke="var(--strand-3)" />
    <text x={24} y={15} fontSize={12} fontWeight={700} fontFamily="var(--sans)" fill="var(--strand-3)">
      A
    </text>
  </Sign>
);
