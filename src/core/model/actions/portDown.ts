import { action } from './kind';
import { portDownFaults, portDownFields, setPortUp } from './portUp';
import { aboutSwitch } from './switchFields';

export const portDown = action('port-down', portDownFields, {
  faults: portDownFaults,
  happens: ({ switch: sw, port }) => ({ changes: [setPortUp(sw, port, false)] }),
  text: ({ switch: sw, port }, names) => `${names.end({ switch: sw, port })} goes down`,
  about: aboutSwitch,
});
