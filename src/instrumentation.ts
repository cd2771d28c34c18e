/** Runs once as the server starts: the database is created or upgraded before the first request. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { database } = await import('./server/db/connect');
  const { plantDemos } = await import('./server/designService');
  plantDemos(database());
}
