/** Who is answered, over real requests: names, origins, types, the password. */
import { createServer, request, type IncomingHttpHeaders, type OutgoingHttpHeaders, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { createFront } from './front';
import { judge } from './guard';
import { createSessions } from './sessions';
import { readSettings, type FrontSettings } from './settings';
import { nextPath } from './signInPage';

const settings = (env: Record<string, string> = {}): FrontSettings => {
  const read = readSettings(env);
  if (!read.ok) throw new Error(read.error);
  return read.value;
};

let servers: Server[] = [];
let passed: string[] = [];
afterEach(() => {
  for (const server of servers) {
    server.close();
    server.closeAllConnections();
  }
  servers = [];
});

/** A server whose answers behind the front are 200s; gives how to ask it. */
async function serve(env: Record<string, string> = {}) {
  passed = [];
  const known = settings({ ...env, PORT: '4000' });
  const server = createServer(
    createFront(known, (asked, response) => {
      passed.push(`${asked.method} ${asked.url}`);
      response.end('behind');
    }),
  );
  servers.push(server);
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  const { port } = server.address() as AddressInfo;
  return (
    method: string,
    path: string,
    headers: OutgoingHttpHeaders = {},
    body = '',
  ): Promise<{ status: number; headers: IncomingHttpHeaders; text: string }> =>
    new Promise((done, failed) => {
      const asked = request(
        {
          port,
          host: '127.0.0.1',
          method,
          path,
          headers: {
            host: '127.0.0.1:4000',
            ...(body === '' ? {} : { 'content-length': Buffer.byteLength(body) }),
            ...headers,
          },
        },
        (response) => {
          let text = '';
          response.on('data', (chunk: Buffer) => (text += chunk.toString()));
          response.on('end', () => done({ status: response.statusCode ?? 0, headers: response.headers, text }));
        },
      );
      asked.on('error', failed);
      asked.end(body);
    });
}
const json = { 'content-type': 'application/json' };

describe('a request', () => {
  it.each([
    ['127.0.0.1:4000', 200],
    ['localhost:4000', 200],
    ['[::1]:4000', 200],
    ['LOCALHOST:4000', 200],
    ['rebound.example', 421],
    ['127.0.0.1', 421],
    ['127.0.0.1:4001', 421],
    ['localhost:4000.rebound.example', 421],
  ])('to the name %s gets %i, reads and files included', async (host, status) => {
    const ask = await serve();
    for (const path of ['/', '/api/designs', '/_next/static/x.js'])
      expect((await ask('GET', path, { host })).status).toBe(status);
  });

  it.each<[string, string, string, OutgoingHttpHeaders, string, number]>([
    ['a write from elsewhere', 'POST', '/api/designs', { ...json, origin: 'http://elsewhere.example' }, '{}', 403],
    ['a write from another port', 'PATCH', '/api/designs/x', { ...json, origin: 'http://127.0.0.1:4001' }, '{}', 403],
    [
      'a write from nowhere that says it crosses sites',
      'DELETE',
      '/api/designs/x',
      { 'sec-fetch-site': 'cross-site' },
      '',
      403,
    ],
    [
      'a write from nowhere that says it crosses ports',
      'POST',
      '/api/designs',
      { ...json, 'sec-fetch-site': 'same-site' },
      '{}',
      403,
    ],
    ['a write from a page without an origin', 'POST', '/api/designs', { ...json, origin: 'null' }, '{}', 403],
    ['text in place of JSON', 'POST', '/api/designs', { 'content-type': 'text/plain' }, '{}', 415],
    [
      'a form in place of JSON',
      'POST',
      '/api/designs',
      { 'content-type': 'application/x-www-form-urlencoded' },
      'a=1',
      415,
    ],
    ['no type at all', 'POST', '/api/designs', {}, '{}', 415],
    ['an escape of nothing', 'GET', '/api/designs/%zz', {}, '', 400],
    ['TRACE', 'TRACE', '/', {}, '', 405],
    ['a method of its own', 'PROPFIND', '/', {}, '', 405],
    [
      'the workbench itself',
      'POST',
      '/api/designs',
      { ...json, origin: 'http://127.0.0.1:4000', 'sec-fetch-site': 'same-origin' },
      '{}',
      200,
    ],
    ['the command line', 'POST', '/api/designs', { 'content-type': 'application/json; charset=utf-8' }, '{}', 200],
    ['a write without a body', 'POST', '/api/designs/x/restore', { origin: 'http://127.0.0.1:4000' }, '', 200],
  ])('%s: %s %s', async (_, method, path, headers, body, status) => {
    const ask = await serve();
    const answer = await ask(method, path, headers, body);
    expect(answer.status).toBe(status);
    expect(passed).toHaveLength(status === 200 ? 1 : 0);
    if (status !== 200) expect(JSON.parse(answer.text)).toEqual({ message: expect.stringMatching(/\.$/) as string });
  });

  it('has complete headers on its answer, whatever gives it', async () => {
    const ask = await serve();
    for (const path of ['/', '/_next/static/x.js', '/%zz']) {
      expect((await ask('GET', path)).headers).toMatchObject({
        'x-content-type-options': 'nosniff',
        'referrer-policy': 'same-origin',
        'cross-origin-opener-policy': 'same-origin',
        'cross-origin-resource-policy': 'same-origin',
        'permissions-policy': expect.stringContaining('camera=()') as string,
      });
    }
    expect((await ask('GET', '/')).headers['strict-transport-security']).toBeUndefined();
    expect((await (await serve({ KNOT_PATH_TLS: '1' }))('GET', '/')).headers['strict-transport-security']).toBe(
      'max-age=31536000',
    );
  });

  it('comes by https where something in front speaks it', () => {
    const asked = {
      method: 'POST',
      url: '/api/designs',
      headers: { host: 'design.example', origin: 'https://design.example', 'content-length': '0' },
    };
    const known = settings({ KNOT_PATH_HOSTS: 'design.example' });
    expect(judge(asked, { ...known, tls: true })).toBeNull();
    expect(judge(asked, { ...known, tls: false })).toMatchObject({ status: 403 });
  });
});

describe('with a password', () => {
  const PASSWORD = 'rope and knot and path';
  const form = { 'content-type': 'application/x-www-form-urlencoded', origin: 'http://127.0.0.1:4000' };
  const given = (password: string, next = '/designs/x') => new URLSearchParams({ password, next }).toString();

  it('nothing is answered before it is given, and everything after', async () => {
    const ask = await serve({ KNOT_PATH_PASSWORD: PASSWORD });
    expect((await ask('GET', '/api/designs')).status).toBe(401);
    expect((await ask('POST', '/api/designs', json, '{}')).status).toBe(401);
    expect(await ask('GET', '/designs/x')).toMatchObject({
      status: 303,
      headers: { location: '/sign-in?next=%2Fdesigns%2Fx' },
    });
    const page = await ask('GET', '/sign-in?next=%2Fdesigns%2F%22%3E%3Cb%3E');
    expect(page.status).toBe(200);
    expect(page.text).not.toContain('"><b>');
    expect(page.headers['content-security-policy']).toContain("default-src 'none'");
    expect((await ask('POST', '/sign-in', form, given('wrong'))).status).toBe(403);
    const signed = await ask('POST', '/sign-in', form, given(PASSWORD));
    expect(signed).toMatchObject({ status: 303, headers: { location: '/designs/x' } });
    const [set] = signed.headers['set-cookie'] ?? [];
    expect(set).toMatch(/^knot-path-session=[\w-]{43}; Path=\/; HttpOnly; SameSite=Strict$/);
    const cookie = set!.split(';')[0]!;
    expect((await ask('GET', '/api/designs', { cookie })).status).toBe(200);
    expect((await ask('GET', '/api/designs', { cookie: `${cookie.slice(0, -1)}_` })).status).toBe(401);
    expect((await ask('POST', '/sign-out', { ...form, cookie })).status).toBe(303);
    expect((await ask('GET', '/api/designs', { cookie })).status).toBe(401);
    expect(passed).toEqual(['GET /api/designs']);
  });

  it('may be tried five times a minute', async () => {
    const sessions = createSessions(PASSWORD);
    for (let n = 0; n < 5; n += 1) expect(await sessions.signIn('wrong', 'a', n)).toEqual({ kind: 'wrong' });
    expect(await sessions.signIn(PASSWORD, 'a', 10)).toEqual({ kind: 'wait', seconds: 60 });
    expect(await sessions.signIn(PASSWORD, 'b', 10)).toMatchObject({ kind: 'in' });
    expect(await sessions.signIn(PASSWORD, 'a', 61_000)).toMatchObject({ kind: 'in' });
  });

  it('lasts twelve hours without use', async () => {
    const sessions = createSessions(PASSWORD);
    const signed = await sessions.signIn(PASSWORD, 'a', 0);
    const cookie = signed.kind === 'in' ? `x=1; knot-path-session=${signed.token}` : '';
    const hours = (n: number) => n * 3600 * 1000;
    expect([hours(11), hours(22), hours(35)].map((now) => sessions.knows(cookie, now))).toEqual([true, true, false]);
  });

  it.each([
    ['/designs/x', '/designs/x'],
    ['//elsewhere.example', '/'],
    ['/\\elsewhere.example', '/'],
    ['https://elsewhere.example', '/'],
    [null, '/'],
    ['/a\nb', '/'],
  ])('leads from %j to %j', (next, to) => expect(nextPath(next)).toBe(to));
});

describe('settings', () => {
  it.each<[Record<string, string>, string]>([
    [{ PORT: 'x' }, 'PORT is x'],
    [{ PORT: '70000' }, 'PORT is 70000'],
    [{ KNOT_PATH_LOG: 'loud' }, 'KNOT_PATH_LOG is loud; it must be one of'],
    [{ KNOT_PATH_ADDRESS: 'here' }, 'KNOT_PATH_ADDRESS is here'],
    [{ KNOT_PATH_TLS: 'yes' }, 'KNOT_PATH_TLS is yes'],
    [{ KNOT_PATH_HOSTS: 'https://design.example' }, 'KNOT_PATH_HOSTS has https://design.example'],
    [{ KNOT_PATH_PASSWORD: 'short' }, 'KNOT_PATH_PASSWORD is too short'],
    [
      { KNOT_PATH_ADDRESS: '0.0.0.0' },
      'where others can reach the server: set KNOT_PATH_PASSWORD and KNOT_PATH_HOSTS too',
    ],
    [
      { KNOT_PATH_ADDRESS: '::', KNOT_PATH_PASSWORD: 'a long enough one' },
      'set KNOT_PATH_PASSWORD and KNOT_PATH_HOSTS',
    ],
    [
      { KNOT_PATH_ADDRESS: '192.0.2.1', KNOT_PATH_HOSTS: 'design.example' },
      'set KNOT_PATH_PASSWORD and KNOT_PATH_HOSTS',
    ],
  ])('%j are refused in a sentence', (env, text) => {
    const read = readSettings(env);
    expect(read.ok ? '' : read.error).toContain(text);
  });

  it('let others in with a password and names', () => {
    expect(
      settings({
        KNOT_PATH_ADDRESS: '192.0.2.1',
        KNOT_PATH_PASSWORD: 'a long enough one',
        KNOT_PATH_HOSTS: 'Design.example, design.example:8443',
      }),
    ).toMatchObject({ address: '192.0.2.1', hosts: new Set(['design.example', 'design.example:8443']) });
    expect(settings().address).toBe('127.0.0.1');
  });
});
