/** What the Guard view adds to the map, for its legend. */
import { Hexagon } from '../../map/glyphs/guardBadge';
import { Sign, SignText } from '../../map/legend/Sign';
import { TagSign } from '../../map/legend/TagSign';

export const Signs = () => (
  <>
    <Sign says="letter in an open hexagon: root guard or loop guard stands by at this port">
      <path d="M4 10H52" stroke="var(--strand-0)" strokeWidth={3} />
      <Hexagon at={{ x: 28, y: 10 }} fill="var(--paper)" stroke="var(--strand-0)" />
      <SignText x={28} anchor="middle" text="D" colour="var(--strand-0)" />
    </Sign>
    <TagSign says="dotted tag beside a switch: edges open to a stranger, guards that harm" text="2 open" />
  </>
);
