/** Asks one agent, by walks that end whatever it answers. Nothing is ever written to it. */
import snmp, { type LibraryVarbind, type Session } from 'net-snmp';
import { compareOids, type Varbind } from '../core/exchange/observation/snmp/mib';
import { logicalBridges, readAgent } from '../core/exchange/observation/snmp/read';
import { BRIDGE_ROOTS, ROOTS } from '../core/exchange/observation/snmp/tables';
import type { ObservedSwitch } from '../core/exchange/observation/observation';
import type { Credential } from './credentials';
import { security } from './security';
import { fromLibrary } from './values';

/** Values asked for at once, and most that one walk takes. */
const AT_ONCE = 40;
const MOST = 100_000;
/** Most bridges within a switch that are asked. */
const MOST_BRIDGES = 512;

export interface Asking {
  readonly address: string;
  readonly port: number;
  readonly credential: Credential;
  /** Milliseconds for each try, and tries beyond the first. */
  readonly timeout: number;
  readonly retries: number;
}

/** Why an agent was not read, in words that give nothing away. */
export class NotRead extends Error {}

/** Reads a switch by all tables there are. */
export async function readSwitch(asking: Asking, isOver: () => boolean): Promise<ObservedSwitch> {
  const { credential, address } = asking;
  const missing: string[] = [];
  const own = await withSession(asking, credential.version === '2c' ? credential.community : '', '', (session) =>
    walks(session, ROOTS, missing, isOver),
  );
  if (own.length === 0) throw new NotRead('it answers, and tells nothing that is read');
  const within = logicalBridges(own);
  const bridges: Varbind[][] = [];
  for (const { name, community, context } of within.slice(0, MOST_BRIDGES)) {
    if (isOver()) throw new NotRead('stopped');
    const by = credential.version === '2c' ? community && Buffer.from(community).toString('latin1') : '';
    if (by === null || (credential.version === '3' && context === null)) {
      missing.push(`${name}: it does not say how it is asked.`);
      continue;
    }
    try {
      bridges.push(
        await withSession(asking, by, context ?? '', (session) => walks(session, BRIDGE_ROOTS, missing, isOver)),
      );
    } catch (error) {
      if (!(error instanceof NotRead)) throw error;
      missing.push(`${name}: ${error.message}.`);
    }
  }
  if (within.length > MOST_BRIDGES) missing.push(`${within.length} bridges within it: ${MOST_BRIDGES} were asked.`);
  const read = readAgent(address, own, bridges);
  return { ...read, missing: [...read.missing, ...missing] };
}

async function withSession<T>(
  { address, port, credential, timeout, retries }: Asking,
  community: string,
  context: string,
  ask: (session: Session) => Promise<T>,
): Promise<T> {
  const options = { port, timeout, retries, version: snmp.Version2c, context, backoff: 1.5 };
  const session =
    credential.version === '2c'
      ? snmp.createSession(address, community, options)
      : snmp.createV3Session(address, security(credential), { ...options, version: snmp.Version3 });
  session.on('error', () => undefined);
  try {
    return await ask(session);
  } finally {
    session.close();
  }
}

async function walks(
  session: Session,
  roots: readonly string[],
  missing: string[],
  isOver: () => boolean,
): Promise<Varbind[]> {
  const found: Varbind[] = [];
  for (const root of roots) {
    const wrong = await walk(session, root, found, isOver);
    if (wrong !== null) missing.push(`${root}: ${wrong}.`);
  }
  return found;
}

/** All below a name; gives what was wrong with the answers, where the walk had to end for it. */
async function walk(session: Session, root: string, into: Varbind[], isOver: () => boolean): Promise<string | null> {
  let last = root;
  for (let count = 0; ;) {
    if (isOver()) throw new NotRead('stopped');
    const answers = await bulk(session, last);
    if (answers.length === 0) return null;
    for (const answer of answers) {
      if (answer.type === snmp.ObjectType.EndOfMibView || !answer.oid.startsWith(`${root}.`)) return null;
      if (compareOids(answer.oid, last) <= 0) return 'its names do not go on in order, so the rest was left';
      last = answer.oid;
      const read = fromLibrary(answer);
      if (read) into.push(read);
      count += 1;
      if (count >= MOST) return `more than ${MOST} values, the rest was left`;
    }
  }
}

const bulk = (session: Session, oid: string): Promise<LibraryVarbind[]> =>
  new Promise((done, reject) => {
    session.getBulk([oid], 0, AT_ONCE, (error, found) => {
      if (error) reject(new NotRead(whyNot(error, isDeaf(session, oid))));
      // The library gives a list for each name that repeats.
      else done(found.flat());
    });
  });

/** It has told of its engine, as anybody is told, and answers no request: the first one was of another user, or another key. */
const isDeaf = (session: Session, oid: string): boolean =>
  session.msgSecurityParameters !== undefined && oid === ROOTS[0];

/** The library's errors may hold what was asked by. */
function whyNot(error: Error, isDeafToUs: boolean): string {
  if (error.name === 'RequestTimedOutError')
    return isDeafToUs ? 'it is there, and does not take the user or a key' : 'it does not answer';
  if (/Unknown user|UnknownUserNames?/i.test(error.message)) return 'it does not know the user';
  if (/Wrong digest|authentication|digest/i.test(error.message)) return 'it does not take the key';
  if (/decrypt/i.test(error.message)) return 'it cannot be decrypted: the key for privacy is another';
  if (error instanceof snmp.RequestFailedError) return 'it refuses';
  return 'its answer cannot be read';
}
