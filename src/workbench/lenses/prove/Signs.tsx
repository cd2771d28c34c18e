/** What the Prove view adds to the map, for its legend. */
import { Sign } from '../../map/legend/Sign';
import { TagSign } from '../../map/legend/TagSign';

export const Signs = () => (
  <>
    <Sign says="pale band along a link: the wider, the more ports change when it fails">
      <path d="M4 10H52" stroke="var(--ink)" strokeOpacity={0.13} strokeWidth={14} />
      <path d="M4 10H52" stroke="var(--strand-0)" strokeWidth={3} />
    </Sign>
    <Sign says="band with edges: without this link hosts are cut off for good">
      <path d="M4 10H52" stroke="var(--ink)" strokeWidth={16} />
      <path d="M4 10H52" stroke="var(--paper)" strokeWidth={13.5} />
      <path d="M4 10H52" stroke="var(--ink)" strokeOpacity={0.13} strokeWidth={12} />
      <path d="M4 10H52" stroke="var(--strand-0)" strokeWidth={3} />
    </Sign>
    <TagSign says="tag beside a switch: intents broken there, hosts that hang on it alone" text="2 alone" />
  </>
);
