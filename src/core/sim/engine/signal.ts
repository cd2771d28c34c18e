/** What is known of every port beside its trees. */

/** The code of a port in a timeline of signals is made of these: it has signal; its BPDUs arrive; what goes out of its aggregation port arrives; its aggregation port is MAC_Operational. */
export const LIVE = 1;
export const CARRIES = 2;
export const ARRIVES = 4;
export const OPERATIONAL = 8;
