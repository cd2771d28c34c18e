/** What the Observe view adds to the map, for its legend. */
import { TagSign } from '../../map/legend/TagSign';

export const Signs = () => (
  <TagSign says="dotted tag beside a switch: in how many things the network is other than designed" text="3 other" />
);
