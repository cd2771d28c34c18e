import { stackMemberFaults, stackMemberFields, setStackMember } from './stackMemberFields';
import { action } from './kind';
import { aboutSwitch } from './switchFields';

export const stackMemberUp = action('stack-member-up', stackMemberFields, {
  faults: stackMemberFaults,
  happens: (action) => ({ changes: [setStackMember(action, { up: true })] }),
  text: (action, names) => `Member ${action.member} of ${names.switch(action.switch)} gets power`,
  about: aboutSwitch,
});
