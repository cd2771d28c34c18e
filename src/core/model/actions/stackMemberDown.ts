import { stackMemberFaults, stackMemberFields, setStackMember } from './stackMemberFields';
import { action } from './kind';
import { aboutSwitch } from './switchFields';

export const stackMemberDown = action('stack-member-down', stackMemberFields, {
  faults: stackMemberFaults,
  happens: (action) => ({ changes: [setStackMember(action, { up: false })] }),
  text: (action, names) => `Member ${action.member} of ${names.switch(action.switch)} loses power`,
  about: aboutSwitch,
});
