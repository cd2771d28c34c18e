import { stackMemberFaults, stackMemberFields, setStackMember } from './stackMemberFields';
import { action } from './kind';
import { aboutSwitch } from './switchFields';

export const stackCableUp = action('stack-cable-up', stackMemberFields, {
  faults: stackMemberFaults,
  happens: (action) => ({ changes: [setStackMember(action, { cable: true })] }),
  text: (action, names) =>
    `The stack cable after member ${action.member} of ${names.switch(action.switch)} is plugged in again`,
  about: aboutSwitch,
});
