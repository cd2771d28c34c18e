/** What rules ask of a design: where its network is other, and which of its intents do not hold there. */
import { intentText, judged } from '../../../analysis/intents/intents';
import { Settled } from '../../../analysis/intents/settled';
import type { Design } from '../../../model/document';
import { namesOf } from '../../../model/derive/names';
import { solve } from '../../../tree/solve';
import { compareObserved } from '../compare/compare';
import { differenceText } from '../compare/difference';
import { asObserved } from '../onMap';
import type { Observation } from '../observation';
import type { AsDesigned } from './watch';

/** Asked only where a rule wants to know. */
export const asDesigned = (design: () => Design, observation: Observation): AsDesigned => ({
  differences() {
    const names = namesOf(design());
    return compareObserved(solve(design()), observation).differences.map((each) => differenceText(names, each));
  },
  broken() {
    const now = design();
    const verdicts = judged(new Settled(asObserved(now, observation)), now.intents);
    return now.intents.filter(({ id }) => verdicts.get(id)?.is === 'broken').map((intent) => intentText(now, intent));
  },
});

/** For a watch without a design. */
export const UNDESIGNED: AsDesigned = { differences: () => [], broken: () => [] };
