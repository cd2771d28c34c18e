/** What is known of every port beside its trees. */

/** The code of a port in a timeline of signals is made of these: it has signal; its BPDUs arrive; what goes out of its aggregation port arrives; its aggregation port is MAC_Operational. Above them stands what shut it (`SHUT_BY`). */
export const LIVE = 1;
export const CARRIES = 2;
export const ARRIVES = 4;
export const OPERATIONAL = 8;
/** By how many bits what shut a port is shifted. */
export const SHUT_SHIFT = 4;
