/** A tag beside a switch, for the legend. */
import { Sign, SignText } from './Sign';

export const TagSign = ({ says, text }: { readonly says: string; readonly text: string }) => (
  <Sign says={says}>
    <rect x={2} y={2} width={52} height={16} rx={3} fill="var(--paper)" stroke="var(--accent)" strokeDasharray="3 2" />
    <SignText x={28} anchor="middle" text={text} />
  </Sign>
);
