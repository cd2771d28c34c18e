import { boxFaults, boxFields, setBox } from './boxFields';
import { action } from './kind';
import { aboutSwitch } from './switchFields';

export const stackCableDown = action('stack-cable-down', boxFields, {
  faults: boxFaults,
  happens: (action) => ({ changes: [setBox(action, { cable: false })] }),
  text: (action, names) => `The stack cable after box ${action.box} of ${names.switch(action.switch)} is cut`,
  about: aboutSwitch,
});
