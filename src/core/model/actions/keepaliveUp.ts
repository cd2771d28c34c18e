import { halfFaults, setHalf } from './pairFields';
import { action } from './kind';
import { aboutSwitch, switchFields } from './switchFields';

export const keepaliveUp = action('keepalive-up', switchFields, {
  faults: halfFaults,
  happens: (action) => ({ changes: [setHalf(action, { keepaliveUp: true })] }),
  text: (action, names) => `The network for the keepalive of ${names.switch(action.switch)} works again`,
  about: aboutSwitch,
});
