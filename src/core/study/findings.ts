/** Every finding on a design, for the drawer and for `knot-path check`. */
import type { Design } from '../design/schema';
import type { Solution } from '../tree/settled';
import { identifierFindings, linkFindings, timerFindings } from './cableFindings';
import type { Finding } from './finding';
import { loopFindings } from './loopFindings';
import { rootFindings } from './rootFindings';

/** All findings, the ones about roots first. */
export const findingsOf = (design: Design, solution: Solution): Finding[] => [
  ...rootFindings(solution),
  ...loopFindings(solution.network),
  ...linkFindings(design),
  ...identifierFindings(design),
  ...timerFindings(design),
];
