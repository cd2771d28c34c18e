/** What the Break view adds to the map, for its legend. */
import { Sign } from '../../map/legend/Sign';

export const Signs = () => (
  <>
    <Sign says="short thick dash: a BPDU on its way">
      <path d="M4 10H52" stroke="var(--strand-0)" strokeWidth={3} />
      <path d="M22 10H34" stroke="var(--paper)" strokeWidth={10} />
      <path d="M23 10H33" stroke="var(--strand-0)" strokeWidth={7} />
    </Sign>
    <Sign says="grey band along links: the path of the frame that is followed">
      <path d="M4 10H52" stroke="var(--ink)" strokeOpacity={0.25} strokeWidth={14} />
      <path d="M4 10H52" stroke="var(--strand-0)" strokeWidth={3} />
    </Sign>
  </>
);
