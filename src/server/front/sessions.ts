/** The password and who has given it: scrypt, compared in constant time, tried only so often; sessions kept in memory by their hash. */
import { createHash, randomBytes, scrypt, timingSafeEqual } from 'node:crypto';
import { promisify } from 'node:util';

const derive = promisify(scrypt) as (password: string, salt: Buffer, length: number) => Promise<Buffer>;

export const COOKIE = 'knot-path-session';
/** How long a session lasts after it was last used. */
const LASTS_MS = 12 * 3600 * 1000;
const MOST_SESSIONS = 1000;
/** Tries in a minute: from one address, and from all together. */
const TRIES = { each: 5, all: 30, inMs: 60_000 } as const;

export type SignIn =
  | { readonly kind: 'in'; readonly token: string }
  | { readonly kind: 'wrong' }
  | { readonly kind: 'wait'; readonly seconds: number };

export interface Sessions {
  /** Whether the request's Cookie header carries a session. */
  knows(cookie: string | undefined, now?: number): boolean;
  signIn(password: string, from: string, now?: number): Promise<SignIn>;
  signOut(cookie: string | undefined): void;
}

export function createSessions(password: string): Sessions {
  const salt = randomBytes(16);
  const wanted = derive(password, salt, 32);
  const sessions = new Map<string, number>();
  let tries: { readonly from: string; readonly at: number }[] = [];
  const keyOf = (token: string): string => createHash('sha256').update(token).digest('hex');
  return {
    knows(cookie, now = Date.now()) {
      const token = tokenOf(cookie);
      const key = token === null ? '' : keyOf(token);
      if ((sessions.get(key) ?? 0) < now) return false;
      sessions.set(key, now + LASTS_MS);
      return true;
    },
    async signIn(given, from, now = Date.now()) {
      tries = tries.filter(({ at }) => at > now - TRIES.inMs);
      const own = tries.filter((each) => each.from === from);
      const [first] = own.length >= TRIES.each ? own : tries.length >= TRIES.all ? tries : [];
      if (first) return { kind: 'wait', seconds: Math.max(1, Math.ceil((first.at + TRIES.inMs - now) / 1000)) };
      tries.push({ from, at: now });
      if (given.length > 1000 || !timingSafeEqual(await derive(given, salt, 32), await wanted))
        return { kind: 'wrong' };
      tries = tries.filter((each) => each.from !== from);
      const token = randomBytes(32).toString('base64url');
      for (const [key, until] of sessions) if (until < now || sessions.size >= MOST_SESSIONS) sessions.delete(key);
      sessions.set(keyOf(token), now + LASTS_MS);
      return { kind: 'in', token };
    },
    signOut(cookie) {
      const token = tokenOf(cookie);
      if (token !== null) sessions.delete(keyOf(token));
    },
  };
}

/** A session's cookie as it is set; an empty token takes it away. */
export const cookieOf = (token: string, tls: boolean): string =>
  `${COOKIE}=${token}; Path=/; HttpOnly; SameSite=Strict${tls ? '; Secure' : ''}${token === '' ? '; Max-Age=0' : ''}`;

function tokenOf(cookie: string | undefined): string | null {
  const part = (cookie ?? '')
    .split(';')
    .map((each) => each.trim())
    .find((each) => each.startsWith(`${COOKIE}=`));
  const token = part?.slice(COOKIE.length + 1) ?? '';
  return /^[\w-]{43}$/.test(token) ? token : null;
}
