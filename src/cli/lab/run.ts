/** Programs of the system, run to their end; what they say goes into the error. */
import { spawnSync } from 'node:child_process';

/** A program that failed; its message is one line. */
export class Failed extends Error {}

interface How {
  readonly input?: string;
  readonly env?: Readonly<Record<string, string>>;
}

/** What it printed. */
export function run(program: string, args: readonly string[], { input, env }: How = {}): string {
  const { status, stdout, stderr, error } = spawnSync(program, args, {
    encoding: 'utf8',
    maxBuffer: 1 << 28,
    stdio: [input === undefined ? 'ignore' : 'pipe', 'pipe', 'pipe'],
    ...(input === undefined ? {} : { input }),
    ...(env ? { env: { ...process.env, ...env } } : {}),
  });
  if (error || status !== 0)
    throw new Failed(
      `${[program, ...args].join(' ')}: ${(error?.message ?? stderr.trim().split('\n')[0]) || `ended with ${status}`}`,
    );
  return stdout;
}

/** The same in a network namespace. */
export const runIn = (namespace: string, program: string, args: readonly string[], how: How = {}): string =>
  run('ip', ['netns', 'exec', namespace, program, ...args], how);

/** Whether a program is there. */
export const isThere = (program: string): boolean => !spawnSync(program, ['--version'], { stdio: 'ignore' }).error;
