/** What Break adds to keys and palette: the clock, also that of a network that is watched. */
import type { PageAction } from '../../state/action';
import type { ClockControls, Workbench } from '../../state/workbench';

const clockOf = ({ clocks, lens }: Workbench): ClockControls | undefined => clocks.get(lens);
const turning = (state: Workbench): boolean => clockOf(state)?.ready() === true;

export const ACTIONS: readonly PageAction[] = [
  {
    id: 'clock-next',
    name: 'Next change on the timeline',
    group: 'Anywhere',
    keys: ['.'],
    when: turning,
    run: (state) => clockOf(state)?.step(1),
  },
  {
    id: 'clock-back',
    name: 'Previous change on the timeline',
    group: 'Anywhere',
    keys: [','],
    when: turning,
    run: (state) => clockOf(state)?.step(-1),
  },
  {
    id: 'clock-play',
    name: 'Play the timeline so that each change is seen, or pause it',
    group: 'Anywhere',
    keys: ['T'],
    when: turning,
    run: (state) => clockOf(state)?.playOrHalt(),
  },
  {
    id: 'clock-start',
    name: 'Timeline to the start',
    group: 'Anywhere',
    when: turning,
    run: (state) => clockOf(state)?.toStart(),
  },
];
