/** How long frames take. Microseconds. */
import type { Micros } from '../protocol/entity';

/** What a frame takes over a cable that says nothing else, and a BPDU in a switch before it is acted upon. */
export const LINK_DELAY: Micros = 5;
export const HANDLING: Micros = 1000;
