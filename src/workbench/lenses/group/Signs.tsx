/** What the Group view adds to the map, for its legend. */
import { Sign } from '../../map/legend/Sign';

export const Signs = () => (
  <>
    <Sign says="shaded switches and links with a letter: one region">
      <rect
        x={6}
        y={1}
        width={44}
        height={18}
        rx={6}
        fill="var(--strand-3)"
        fillOpacity={0.2}
        stroke="var(--strand-3)"
      />
      <text x={24} y={15} fontSize={12} fontWeight={700} fontFamily="var(--sans)" fill="var(--strand-3)">
        A
      </text>
    </Sign>
    <Sign says="a link between two regions: what their settings differ in">
      <line x1={0} y1={10} x2={56} y2={10} stroke="var(--strand-1)" strokeWidth={3} />
      <rect x={18} y={2} width={20} height={16} rx={3} fill="var(--paper)" stroke="var(--ink-soft)" />
      <text x={28} y={14.5} fontSize={12} textAnchor="middle" fontFamily="var(--sans)" fill="var(--ink)">
        ≠
      </text>
    </Sign>
  </>
);
