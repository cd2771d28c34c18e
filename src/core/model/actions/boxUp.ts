import { boxFaults, boxFields, setBox } from './boxFields';
import { action } from './kind';
import { aboutSwitch } from './switchFields';

export const boxUp = action('box-up', boxFields, {
  faults: boxFaults,
  happens: (action) => ({ changes: [setBox(action, { up: true })] }),
  text: (action, names) => `Box ${action.box} of ${names.switch(action.switch)} gets power`,
  about: aboutSwitch,
});
