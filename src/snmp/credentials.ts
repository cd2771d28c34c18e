/** What agents are asked by: secrets, kept apart from designs, and called by a name wherever they are used. */
import { readFileSync, statSync } from 'node:fs';
import { homedir } from 'node:os';
import path from 'node:path';
import { z } from '../core/base/zod';
import { parseJson } from '../core/base/json';
import { fail, ok, type Result } from '../core/base/result';

const secret = z.string().min(1).max(1000);
const passphrase = z.string().min(8, 'eight characters at least (RFC 3414 11.2)').max(1000);
const credentialSchema = z.discriminatedUnion('version', [
  z.strictObject({ version: z.literal('2c'), community: secret }),
  z.strictObject({
    version: z.literal('3'),
    user: secret,
    auth: z
      .strictObject({ protocol: z.enum(['md5', 'sha', 'sha224', 'sha256', 'sha384', 'sha512']), key: passphrase })
      .optional(),
    priv: z.strictObject({ protocol: z.enum(['des', 'aes', 'aes256b', 'aes256r']), key: passphrase }).optional(),
  }),
]);
export type Credential = z.output<typeof credentialSchema>;
const fileSchema = z.record(z.string(), credentialSchema);

/** The file that `KNOT_PATH_CREDENTIALS` names, else one in the home directory. */
export const credentialsFile = (): string =>
  process.env.KNOT_PATH_CREDENTIALS || path.join(homedir(), '.knot-path', 'credentials.json');

const PREFIX = 'KNOT_PATH_CREDENTIALS_';
/** `KNOT_PATH_CREDENTIALS_MAIN` holds the one called `main`, as JSON. */
const variableOf = (name: string): string => `${PREFIX}${name.toUpperCase().replaceAll(/[^A-Z0-9]/g, '_')}`;

/** One by its name, of the environment or the file. What is wrong with it is told without it. */
export function credentialOf(name: string): Result<Credential, string> {
  const given = process.env[variableOf(name)];
  if (given !== undefined) return checked(credentialSchema, given, variableOf(name));
  const all = inFile();
  if (!all) return fail(`there is neither ${variableOf(name)} nor a file ${credentialsFile()}`);
  if (!all.ok) return all;
  const found = Object.hasOwn(all.value, name) ? all.value[name] : undefined;
  return found
    ? ok(found)
    : fail(`found "${name}"; allowed: ${Object.keys(all.value).join(', ') || 'none, the file is empty'}`);
}

/** The names that there are; the secrets stay where they are. */
export function credentialNames(): Result<readonly string[], string> {
  const given = Object.keys(process.env)
    .filter((key) => key.startsWith(PREFIX))
    .map((key) => key.slice(PREFIX.length).toLowerCase());
  const all = inFile();
  return all && !all.ok ? all : ok([...new Set([...given, ...Object.keys(all?.value ?? {})])].sort());
}

/** Null where there is none. */
function inFile(): Result<z.output<typeof fileSchema>, string> | null {
  const file = credentialsFile();
  let text: string;
  try {
    if ((statSync(file).mode & 0o077) !== 0)
      return fail(`${file}: others may read it; allowed: rights for its owner alone (chmod 600)`);
    text = readFileSync(file, 'utf8');
  } catch {
    return null;
  }
  return checked(fileSchema, text, file);
}

function checked<S extends z.ZodType>(schema: S, text: string, where: string): Result<z.output<S>, string> {
  const json = parseJson(text);
  const read = json.ok ? schema.safeParse(json.value) : null;
  if (read?.success) return ok(read.data);
  const issue = read?.error.issues[0];
  return fail(`${where}: ${issue ? `${issue.path.map(String).join('.')}: ${issue.message}` : 'it is no JSON'}`);
}
