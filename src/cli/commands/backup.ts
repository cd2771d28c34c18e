/** `knot-path backup` and `knot-path restore`: what native code they need is loaded only then. */
import type { Verb } from '../verb';
import type * as backups from '../../server/db/backup';
import type * as connecting from '../../server/db/connect';
import { Unusable } from '../input';

async function runBackup(options: { output: string; database?: string }): Promise<void> {
  await told(async ({ backUp, databaseFile }) => {
    const from = options.database ?? databaseFile();
    const { designs, revisions } = await backUp(from, options.output);
    return `${options.output} holds ${designs} designs with ${revisions} changes, read and found whole\n`;
  });
}

async function runRestore(file: string, options: { database?: string }): Promise<void> {
  await told(async ({ restore, databaseFile }) => {
    const to = options.database ?? databaseFile();
    const { designs, revisions, kept } = await restore(file, to);
    return `${to} holds ${designs} designs with ${revisions} changes now${kept === null ? '' : `; what stood there is ${kept}`}\n`;
  });
}

type Room = typeof backups & Pick<typeof connecting, 'databaseFile'>;

async function told(work: (room: Room) => Promise<string>): Promise<void> {
  const [backup, { databaseFile }, { DatabaseTrouble }] = await Promise.all([
    import('../../server/db/backup'),
    import('../../server/db/connect'),
    import('../../server/db/trouble'),
  ]);
  try {
    process.stdout.write(await work({ ...backup, databaseFile }));
  } catch (error) {
    if (error instanceof DatabaseTrouble || error instanceof backup.NoBackup) throw new Unusable(error.message);
    throw error;
  }
}

/** `knot-path backup`. */
export const backupCommand: Verb = (program) =>
  void program
    .command('backup')
    .description('a copy of the database, which may be in use meanwhile')
    .requiredOption('-o, --output <file>', 'where it goes')
    .option('--database <file>', 'the database; otherwise the one that KNOT_PATH_DB names')
    .action(runBackup);

/** `knot-path restore`. */
export const restoreCommand: Verb = (program) =>
  void program
    .command('restore')
    .description('puts a copy in the place of the database; the server must not be running')
    .argument('<file>', 'the copy')
    .option('--database <file>', 'the database; otherwise the one that KNOT_PATH_DB names')
    .action(runRestore);
