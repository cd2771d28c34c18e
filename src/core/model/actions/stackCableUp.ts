import { boxFaults, boxFields, setBox } from './boxFields';
import { action } from './kind';
import { aboutSwitch } from './switchFields';

export const stackCableUp = action('stack-cable-up', boxFields, {
  faults: boxFaults,
  happens: (action) => ({ changes: [setBox(action, { cable: true })] }),
  text: (action, names) =>
    `The stack cable after box ${action.box} of ${names.switch(action.switch)} is plugged in again`,
  about: aboutSwitch,
});
