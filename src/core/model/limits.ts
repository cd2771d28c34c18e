/**
 * How large a design may be beside the lengths of the document's lists, which stand in its table: far above the networks
 * that Knot Path is for, and low enough that every answer comes in reasonable time. Stated in docs/design-file.md, held
 * wherever a document or an edit comes in (derive/limits.ts).
 */

/** Most ports on one switch (each has a number of twelve bits), and in a design. */
export const MAX_PORTS = { switch: 4095, design: 50_000 } as const;
/** Most members of a stack. */
export const MAX_STACK_MEMBERS = 16;
/** Most cards of a host, and most members of a bundle. */
export const MAX_ENDS = 64;
/** Most instances of a region beside the IST (802.1Q-2018 13.5). */
export const MAX_INSTANCES = 64;
/** Most changes in one step. */
export const MAX_COMMANDS = 10_000;
/** Most problems that are told of one document: who mends these sees the others then. */
export const MAX_PROBLEMS = 100;
