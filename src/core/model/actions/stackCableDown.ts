import { stackMemberFaults, stackMemberFields, setStackMember } from './stackMemberFields';
import { action } from './kind';
import { aboutSwitch } from './switchFields';

export const stackCableDown = action('stack-cable-down', stackMemberFields, {
  faults: stackMemberFaults,
  happens: (action) => ({ changes: [setStackMember(action, { cable: false })] }),
  text: (action, names) => `The stack cable after member ${action.member} of ${names.switch(action.switch)} is cut`,
  about: aboutSwitch,
});
