/** What Break adds to keys and palette: the clock. */
import type { PageAction } from '../../state/action';
import type { Workbench } from '../../state/workbench';

const turning = (state: Workbench): boolean => state.lens === 'Break' && state.clock?.ready() === true;

export const ACTIONS: readonly PageAction[] = [
  {
    id: 'clock-next',
    name: 'Next change on the timeline',
    group: 'Anywhere',
    keys: ['.'],
    when: turning,
    run: (state) => state.clock?.step(1),
  },
  {
    id: 'clock-back',
    name: 'Previous change on the timeline',
    group: 'Anywhere',
    keys: [','],
    when: turning,
    run: (state) => state.clock?.step(-1),
  },
  {
    id: 'clock-play',
    name: 'Play the timeline slowly, or pause it',
    group: 'Anywhere',
    keys: ['T'],
    when: turning,
    run: (state) => state.clock?.playOrHalt(),
  },
  {
    id: 'clock-start',
    name: 'Timeline to the start',
    group: 'Anywhere',
    when: turning,
    run: (state) => state.clock?.toStart(),
  },
];
