import { z } from '../../base/zod';
import { MAX_UNTIL, action } from './kind';
import { aboutSwitch, power, switchFaults, switchFields } from './switchFields';

export const switchUp = action(
  'switch-up',
  {
    ...switchFields,
    /** Seconds from the power to the first frame. */
    boot: z.number().min(0).max(MAX_UNTIL).default(0),
  },
  {
    faults: switchFaults,
    happens: ({ switch: sw, boot }) => ({ after: boot, changes: [power(sw, true)] }),
    text: ({ switch: sw, boot }, names) =>
      `${names.switch(sw)} has power again${boot > 0 ? `, and runs after ${boot} s` : ''}`,
    about: aboutSwitch,
  },
);
