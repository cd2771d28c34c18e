/** `knot-path`: the core on the command line. */
import { Command } from 'commander';
import { agentsCommand } from './commands/agents';
import { backupCommand, restoreCommand } from './commands/backup';
import { bundlesCommand } from './commands/bundles';
import { checkCommand } from './commands/check';
import { proveCommand } from './commands/prove';
import { watchCommand } from './commands/watch';
import { drawCommand } from './commands/draw';
import { compareCommand } from './commands/compare';
import { explainCommand } from './commands/explain';
import { exportCommand } from './commands/export';
import { importCommand } from './commands/import';
import { labCommand } from './commands/lab';
import { observeCommand } from './commands/observe';
import { pageCommand } from './commands/page';
import { pictureCommand } from './commands/picture';
import { reportCommand } from './commands/report';
import { simulateCommand } from './commands/simulate';
import { solveCommand } from './commands/solve';
import { Unusable } from './input';
import type { Verb } from './verb';

/** The verbs: one line each. */
const VERBS: readonly Verb[] = [
  solveCommand,
  explainCommand,
  simulateCommand,
  bundlesCommand,
  checkCommand,
  proveCommand,
  pictureCommand,
  pageCommand,
  reportCommand,
  exportCommand,
  importCommand,
  labCommand,
  observeCommand,
  compareCommand,
  drawCommand,
  watchCommand,
  agentsCommand,
  backupCommand,
  restoreCommand,
];

const program = new Command('knot-path')
  .description('Answers for a switched network described in a .knot.json document.')
  .exitOverride()
  .configureOutput({
    outputError: (text, write) =>
      write(`knot-path: ${text.replace(/^error: /, '').trimEnd()} (knot-path --help says more)\n`),
  });

for (const verb of VERBS) verb(program);

program.parseAsync().catch((error: unknown) => {
  if (error instanceof Unusable) {
    process.stderr.write(`knot-path: ${error.message}\n`);
    process.exitCode = 2;
  } else if (error instanceof Error && 'exitCode' in error) {
    process.exitCode = error.exitCode === 0 ? 0 : 2;
  } else throw error;
});
