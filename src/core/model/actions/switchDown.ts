import { action } from './kind';
import { aboutSwitch, power, switchFaults, switchFields } from './switchFields';

export const switchDown = action('switch-down', switchFields, {
  faults: switchFaults,
  happens: ({ switch: sw }) => ({ changes: [power(sw, false)] }),
  text: ({ switch: sw }, names) => `${names.switch(sw)} loses power`,
  about: aboutSwitch,
});
