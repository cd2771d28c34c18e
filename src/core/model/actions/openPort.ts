import { action } from './kind';
import { portFaults, portFields } from './portFields';
import { aboutSwitch } from './switchFields';

/** Somebody opens a port that a guard has shut. */
export const openPort = action('open-port', portFields, {
  faults: portFaults,
  happens: ({ switch: sw, port }) => ({ open: { switch: sw, port } }),
  text: ({ switch: sw, port }, names) => `Somebody opens ${names.end({ switch: sw, port })} again`,
  about: aboutSwitch,
});
