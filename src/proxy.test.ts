import { NextRequest } from 'next/server';
import { proxy } from './proxy';

const ask = (method: string, headers: Record<string, string> = {}) =>
  proxy(new NextRequest('http://127.0.0.1:3000/api/designs', { method, headers: { host: '127.0.0.1:3000', ...headers } }));

describe('every answer', () => {
  it('has a policy with a nonce of its own, and lets nothing inline through without it', () => {
    const [one, two] = [ask('GET'), ask('GET')].map((answer) => answer.headers.get('content-security-policy') ?? '');
    expect(one).toMatch(/script-src 'self' 'nonce-[A-Za-z0-9+/=]+' 'strict-dynamic';/);
    expect(one).not.toContain("script-src 'self' 'unsafe-inline'");
    expect(one).not.toBe(two);
  });

  it('tells browsers not to guess types and not to say where one came from', () => {
    expect(ask('GET').headers.get('x-content-type-options')).toBe('nosniff');
    expect(ask('GET').headers.get('referrer-policy')).toBe('same-origin');
  });
});

describe('a write', () => {
  it.each([['http://elsewhere.example'], ['http://127.0.0.1:4000'], ['null'], ['not an origin']])('from %s is refused', (origin) => {
    for (const method of ['POST', 'PATCH', 'DELETE']) expect(ask(method, { origin }).status).toBe(403);
  });

  it('from the workbench itself, or from no page at all, is let through', () => {
    expect(ask('POST', { origin: 'http://127.0.0.1:3000' }).status).toBe(200);
    expect(ask('POST').status).toBe(200);
    expect(ask('GET', { origin: 'http://elsewhere.example' }).status).toBe(200);
  });
});
