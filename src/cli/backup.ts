/** `knot-path backup` and `knot-path restore`: what native code they need is loaded only then. */
import type * as backups from '../server/db/backup';
import type * as connecting from '../server/db/connect';
import { Unusable } from './input';

export async function runBackup(options: { output: string; database?: string }): Promise<void> {
  await told(async ({ backUp, databaseFile }) => {
    const from = options.database ?? databaseFile();
    const { designs, revisions } = await backUp(from, options.output);
    return `${options.output} holds ${designs} designs with ${revisions} changes, read and found whole\n`;
  });
}

export async function runRestore(file: string, options: { database?: string }): Promise<void> {
  await told(async ({ restore, databaseFile }) => {
    const to = options.database ?? databaseFile();
    const { designs, revisions, kept } = await restore(file, to);
    return `${to} holds ${designs} designs with ${revisions} changes now${kept === null ? '' : `; what stood there is ${kept}`}\n`;
  });
}

type Room = typeof backups & Pick<typeof connecting, 'databaseFile'>;

async function told(work: (room: Room) => Promise<string>): Promise<void> {
  const [backup, { databaseFile }, { DatabaseTrouble }] = await Promise.all([
    import('../server/db/backup'),
    import('../server/db/connect'),
    import('../server/db/trouble'),
  ]);
  try {
    process.stdout.write(await work({ ...backup, databaseFile }));
  } catch (error) {
    if (error instanceof DatabaseTrouble || error instanceof backup.NoBackup) throw new Unusable(error.message);
    throw error;
  }
}
