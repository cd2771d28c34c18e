/** The front of the server: judges each request, asks for the password where there is one, and hands on what may pass. */
import type { IncomingMessage, RequestListener, ServerResponse } from 'node:http';
import { headersFor, judge, type Turned } from './guard';
import { cookieOf, createSessions, type Sessions } from './sessions';
import type { FrontSettings } from './settings';
import { SIGN_IN_POLICY, nextPath, signInPage } from './signInPage';

const MOST_FORM = 8192;

/** `pass` answers what is let through. */
export function createFront(
  settings: FrontSettings,
  pass: (request: IncomingMessage, response: ServerResponse) => void,
): RequestListener {
  const sessions = settings.password === null ? null : createSessions(settings.password);
  const headers = Object.entries(headersFor(settings));
  return (request, response) => {
    for (const [name, value] of headers) response.setHeader(name, value);
    const { method = '', url = '', headers: sent } = request;
    const turned = judge({ method, url, headers: sent }, settings);
    if (turned) return turn(response, turned);
    if (!sessions) return pass(request, response);
    const path = url.split('?')[0]!;
    if (path === '/sign-in' || path === '/sign-out')
      return void form(request, response, path, sessions, settings).catch(() =>
        turn(response, { status: 400, message: 'This form cannot be read.' }),
      );
    if (sessions.knows(sent.cookie)) return pass(request, response);
    if (path.startsWith('/api/') || (method !== 'GET' && method !== 'HEAD'))
      return turn(response, { status: 401, message: 'Sign in first: open this server in a tab, then try again.' });
    redirect(response, `/sign-in?next=${encodeURIComponent(url)}`);
  };
}

function turn(response: ServerResponse, { status, message, headers = {} }: Turned): void {
  response.writeHead(status, {
    'content-type': 'application/json; charset=utf-8',
    'cache-control': 'no-store',
    connection: 'close',
    ...headers,
  });
  response.end(JSON.stringify({ message }));
}

function redirect(response: ServerResponse, to: string, cookie?: string): void {
  response.writeHead(303, {
    location: to,
    'cache-control': 'no-store',
    ...(cookie === undefined ? {} : { 'set-cookie': cookie }),
  });
  response.end();
}

async function form(
  request: IncomingMessage,
  response: ServerResponse,
  path: string,
  sessions: Sessions,
  { tls }: FrontSettings,
): Promise<void> {
  const show = (status: number, next: string, fault: string | null, more: Record<string, string> = {}): void => {
    response.writeHead(status, {
      'content-type': 'text/html; charset=utf-8',
      'cache-control': 'no-store',
      'content-security-policy': SIGN_IN_POLICY,
      ...more,
    });
    response.end(signInPage(next, fault));
  };
  if (request.method !== 'POST')
    return show(200, nextPath(new URL(request.url ?? '/', 'http://here').searchParams.get('next')), null);
  if (path === '/sign-out') {
    sessions.signOut(request.headers.cookie);
    return redirect(response, '/sign-in', cookieOf('', tls));
  }
  const fields = new URLSearchParams(await textOf(request));
  const next = nextPath(fields.get('next'));
  const result = await sessions.signIn(fields.get('password') ?? '', request.socket.remoteAddress ?? '');
  switch (result.kind) {
    case 'in':
      return redirect(response, next, cookieOf(result.token, tls));
    case 'wrong':
      return show(403, next, 'That is not the password.');
    case 'wait':
      return show(429, next, `Too many tries: wait ${result.seconds} seconds.`, {
        'retry-after': String(result.seconds),
      });
  }
}

async function textOf(request: IncomingMessage): Promise<string> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of request as AsyncIterable<Buffer>) {
    size += chunk.length;
    if (size > MOST_FORM) throw new Error('too long');
    chunks.push(chunk);
  }
  return Buffer.concat(chunks).toString('utf8');
}
