/** `knot-path`: the core on the command line. */
import { Command } from 'commander';
import { runBackup, runRestore } from './backup';
import { runBundles } from './bundles';
import { runCheck } from './check';
import { runExplain } from './explain';
import { Unusable } from './input';
import { runSimulate } from './simulate';
import { runSolve } from './solve';

const program = new Command('knot-path')
  .description('Answers for a switched network described in a .knot.json document.')
  .exitOverride()
  .configureOutput({
    outputError: (text, write) =>
      write(`knot-path: ${text.replace(/^error: /, '').trimEnd()} (knot-path --help says more)\n`),
  });

program
  .command('solve')
  .description('the settled role and state of every port')
  .argument('<file>', 'design document, - for standard input')
  .option('--tree <id...>', 'these trees only: cst, vlan:15')
  .option('--json', 'as JSON')
  .action(runSolve);
program
  .command('explain')
  .description('why a port has its role, in words')
  .argument('<file>', 'design document, - for standard input')
  .argument('<switch>', 'id of a switch')
  .argument('<port>', 'id of one of its ports')
  .requiredOption('--tree <id>', 'the tree: cst, vlan:15')
  .action(runExplain);
program
  .command('simulate')
  .description('what happens in a scenario: every change of state, who is cut off, where it settles')
  .argument('<file>', 'design document, - for standard input')
  .requiredOption('--scenario <file>', 'what happens when, as JSON')
  .option('--seed <number>', 'moves the hellos of the switches against each other')
  .option('--from-boot', 'all switches powered on at once at 0, instead of settled')
  .option('--capture <file>', 'every frame sent, as pcapng')
  .option('--json', 'as JSON')
  .action(runSimulate);
program
  .command('bundles')
  .description('what LACP settles to: which bundles come up, which members are active, and why')
  .argument('<file>', 'design document, - for standard input')
  .option('--json', 'as JSON')
  .action(runBundles);
program
  .command('check')
  .description('findings; exit code 1 where there are any')
  .argument('<file>', 'design document, - for standard input')
  .option('--json', 'as JSON')
  .action(runCheck);

program
  .command('backup')
  .description('a copy of the database, which may be in use meanwhile')
  .requiredOption('-o, --output <file>', 'where it goes')
  .option('--database <file>', 'the database; otherwise the one that KNOT_PATH_DB names')
  .action(runBackup);
program
  .command('restore')
  .description('puts a copy in the place of the database; the server must not be running')
  .argument('<file>', 'the copy')
  .option('--database <file>', 'the database; otherwise the one that KNOT_PATH_DB names')
  .action(runRestore);

program.parseAsync().catch((error: unknown) => {
  if (error instanceof Unusable) {
    process.stderr.write(`knot-path: ${error.message}\n`);
    process.exitCode = 2;
  } else if (error instanceof Error && 'exitCode' in error) {
    process.exitCode = error.exitCode === 0 ? 0 : 2;
  } else throw error;
});
