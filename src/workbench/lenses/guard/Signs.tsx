/** What the Guard view adds to the map, for its legend. */
import { Hexagon } from '../../map/glyphs/guardBadge';
import { Sign, SignText } from '../../map/legend/Sign';

export const Signs = () => (
  <>
    <Sign says="letter in an open hexagon: root guard or loop guard stands by at this port">
      <path d="M4 10H52" stroke="var(--strand-0)" strokeWidth={3} />
      <Hexagon at={{ x: 28, y: 10 }} fill="var(--paper)" stroke="var(--strand-0)" />
      <SignText x={28} anchor="middle" text="D" colour="var(--strand-0)" />
    </Sign>
    <Sign says="dotted tag beside a switch: edges open to a stranger, guards that harm">
      <rect
        x={6}
        y={2}
        width={44}
        height={16}
        rx={3}
        fill="var(--paper)"
        stroke="var(--accent)"
        strokeDasharray="3 2"
      />
      <SignText x={28} anchor="middle" text="2 open" />
    </Sign>
  </>
);
