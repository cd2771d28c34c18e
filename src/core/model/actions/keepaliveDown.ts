import { halfFaults, setHalf } from './pairFields';
import { action } from './kind';
import { aboutSwitch, switchFields } from './switchFields';

export const keepaliveDown = action('keepalive-down', switchFields, {
  faults: halfFaults,
  happens: (action) => ({ changes: [setHalf(action, { keepaliveUp: false })] }),
  text: (action, names) => `The network for the keepalive of ${names.switch(action.switch)} fails`,
  about: aboutSwitch,
});
