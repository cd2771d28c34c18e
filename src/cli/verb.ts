import type { Command } from 'commander';

/** A verb of the command line: what it takes, what it says of itself, what it does. */
export type Verb = (program: Command) => void;
