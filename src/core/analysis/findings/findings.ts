/** Every finding on a design, for the drawer and for `knot-path check`. */
import type { Design } from '../../model/document';
import type { Solution } from '../../tree/settled';
import { bundleFindings } from './bundleFindings';
import { linkFindings } from './cableFindings';
import { openLoopFindings, returningBpduFindings } from './dialectFindings';
import type { Finding } from './finding';
import { guardFindings } from './guardFindings';
import { identifierFindings } from './identifierFindings';
import { loopFindings, silentSwitchFindings } from './loopFindings';
import { laterVlanFindings } from '../roots/toCome';
import { neighbourFindings } from '../neighbours/neighbours';
import { regionFindings } from './regionFindings';
import { rootFindings } from './rootFindings';
import { pairFindings } from './pairFindings';
import { stackFindings } from './stackFindings';
import { costMethodFindings, timerFindings } from './settingFindings';
import { heldFindings, hostFindings, pathFindings, rootsHeldFindings, unlistedVlanFindings } from './vlanFindings';

/** All findings: loops first, then roots, then what does not match. */
export const findingsOf = (design: Design, solution: Solution): Finding[] => [
  ...loopFindings(solution.network),
  ...silentSwitchFindings(solution.network),
  ...openLoopFindings(solution),
  ...returningBpduFindings(solution),
  ...rootFindings(solution),
  ...laterVlanFindings(solution),
  ...regionFindings(solution),
  ...stackFindings(solution),
  ...pairFindings(design),
  ...bundleFindings(design),
  ...linkFindings(design),
  ...hostFindings(solution.network),
  ...heldFindings(solution),
  ...rootsHeldFindings(solution),
  ...pathFindings(solution.network),
  ...unlistedVlanFindings(solution.network),
  ...identifierFindings(design),
  ...costMethodFindings(design),
  ...timerFindings(design),
  ...guardFindings(solution),
  ...neighbourFindings(design),
];
