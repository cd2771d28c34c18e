/** What the Root view adds to the map, for its legend. */
import { Sign } from '../../map/legend/Sign';

export const Signs = () => (
  <Sign says="band with chevrons, beside the conversations: BPDUs that ride through switches without part in them; in colour where they come back to their sender">
    <path d="M4 10H52" stroke="var(--accent)" strokeOpacity={0.2} strokeWidth={11} strokeLinecap="round" />
    <path d="M17 6L23 10L17 14M33 6L39 10L33 14" stroke="var(--accent)" strokeWidth={1.6} fill="none" />
  </Sign>
);
