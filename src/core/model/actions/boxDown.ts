import { boxFaults, boxFields, setBox } from './boxFields';
import { action } from './kind';
import { aboutSwitch } from './switchFields';

export const boxDown = action('box-down', boxFields, {
  faults: boxFaults,
  happens: (action) => ({ changes: [setBox(action, { up: false })] }),
  text: (action, names) => `Box ${action.box} of ${names.switch(action.switch)} loses power`,
  about: aboutSwitch,
});
