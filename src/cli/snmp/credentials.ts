/** What agents are asked by: secrets, kept apart from designs, and called by a name wherever they are used. */
import { readFileSync, statSync } from 'node:fs';
import { homedir } from 'node:os';
import path from 'node:path';
import { z } from '../../core/base/zod';
import { parseJson } from '../../core/base/json';
import { Unusable } from '../input';

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
const credentialsFile = (): string =>
  process.env.KNOT_PATH_CREDENTIALS || path.join(homedir(), '.knot-path', 'credentials.json');

/** `KNOT_PATH_CREDENTIALS_MAIN` holds the one called `main`, as JSON. */
const variableOf = (name: string): string =>
  `KNOT_PATH_CREDENTIALS_${name.toUpperCase().replaceAll(/[^A-Z0-9]/g, '_')}`;

/** One by its name, of the environment or the file. What is wrong with it is told without it. */
export function credentialOf(name: string): Credential {
  const given = process.env[variableOf(name)];
  if (given !== undefined) return checked(credentialSchema, given, variableOf(name));
  const file = credentialsFile();
  let text: string;
  try {
    if ((statSync(file).mode & 0o077) !== 0)
      throw new Unusable(`${file}: others may read it; allowed: rights for its owner alone (chmod 600)`);
    text = readFileSync(file, 'utf8');
  } catch (error) {
    if (error instanceof Unusable) throw error;
    throw new Unusable(`--credentials: there is neither ${variableOf(name)} nor a file ${file}`);
  }
  const all = checked(fileSchema, text, file);
  const found = Object.hasOwn(all, name) ? all[name] : undefined;
  if (!found) throw new Unusable(`--credentials: found "${name}"; allowed: ${Object.keys(all).join(', ') || 'none'}`);
  return found;
}

function checked<S extends z.ZodType>(schema: S, text: string, where: string): z.output<S> {
  const json = parseJson(text);
  const read = json.ok ? schema.safeParse(json.value) : null;
  if (read?.success) return read.data;
  const issue = read?.error.issues[0];
  throw new Unusable(`${where}: ${issue ? `${issue.path.map(String).join('.')}: ${issue.message}` : 'it is no JSON'}`);
}
