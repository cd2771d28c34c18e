/** What is known of every port beside its trees. */

/** The code of a port in a timeline of signals is made of these: it has signal; what it sends arrives. */
export const LIVE = 1;
export const CARRIES = 2;
