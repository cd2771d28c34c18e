/** What the environment tells the server, checked before anything is opened; every fault is a sentence. */
import { isIP } from 'node:net';
import { fail, ok, type Result } from '../../core/base/result';
import { databaseFile } from '../db/connect';

export interface FrontSettings {
  readonly port: number;
  /** The address that is listened on. */
  readonly address: string;
  /** What a request's Host header may say, in lower case, with the port where it is not the scheme's own. */
  readonly hosts: ReadonlySet<string>;
  readonly password: string | null;
  /** True where something in front speaks TLS: cookies are marked so, and browsers told to come by TLS alone. */
  readonly tls: boolean;
  readonly database: string;
}

export const LOG_LEVELS = ['fatal', 'error', 'warn', 'info', 'debug', 'trace', 'silent'] as const;

const LEAST_PASSWORD = 12;

type Environment = Readonly<Record<string, string | undefined>>;

export function readSettings(env: Environment): Result<FrontSettings, string> {
  const port = Number(env.PORT || 3000);
  if (!Number.isInteger(port) || port < 1 || port > 65_535)
    return fail(`PORT is ${env.PORT}; it must be a number from 1 to 65535.`);
  const level = env.KNOT_PATH_LOG || 'warn';
  if (!LOG_LEVELS.some((each) => each === level))
    return fail(`KNOT_PATH_LOG is ${level}; it must be one of ${LOG_LEVELS.join(', ')}.`);
  const address = env.KNOT_PATH_ADDRESS || '127.0.0.1';
  if (isIP(address) === 0) return fail(`KNOT_PATH_ADDRESS is ${address}; it must be an IP address, such as 127.0.0.1.`);
  if (env.KNOT_PATH_TLS !== undefined && !['', '0', '1'].includes(env.KNOT_PATH_TLS))
    return fail(`KNOT_PATH_TLS is ${env.KNOT_PATH_TLS}; it must be 1 where a server in front speaks TLS, or 0.`);
  const named = (env.KNOT_PATH_HOSTS ?? '')
    .split(',')
    .map((name) => name.trim().toLowerCase())
    .filter((name) => name !== '');
  const wrong = named.find((name) => !/^(\[[0-9a-f:.]+\]|[a-z0-9.-]+)(:\d{1,5})?$/.test(name));
  if (wrong !== undefined)
    return fail(
      `KNOT_PATH_HOSTS has ${wrong}; it must be names as browsers show them, such as design.example or design.example:8443, with commas between.`,
    );
  const password = env.KNOT_PATH_PASSWORD || null;
  if (password !== null && password.length < LEAST_PASSWORD)
    return fail(`KNOT_PATH_PASSWORD is too short; it must have ${LEAST_PASSWORD} characters or more.`);
  const loopback = isLoopback(address);
  if (!loopback && (password === null || named.length === 0))
    return fail(
      `KNOT_PATH_ADDRESS is ${address}, where others can reach the server: set KNOT_PATH_PASSWORD and KNOT_PATH_HOSTS too (docs/running.md says how).`,
    );
  const own = loopback ? ['127.0.0.1', 'localhost', '[::1]'].map((name) => `${name}:${port}`) : [];
  const hosts = new Set([...own, ...(port === 80 ? own.map((name) => name.replace(/:80$/, '')) : []), ...named]);
  return ok({ port, address, hosts, password, tls: env.KNOT_PATH_TLS === '1', database: databaseFile() });
}

const isLoopback = (address: string): boolean => address === '::1' || /^127\./.test(address);
