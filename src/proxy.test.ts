import { NextRequest } from 'next/server';
import { proxy } from './proxy';

const ask = (method: string, headers: Record<string, string> = {}) =>
  proxy(
    new NextRequest('http://127.0.0.1:3000/api/designs', { method, headers: { host: '127.0.0.1:3000', ...headers } }),
  );

describe('every answer', () => {
  it('has a policy with a nonce of its own, and lets nothing inline through without it', () => {
    const [one, two] = [ask('GET'), ask('GET')].map((answer) => answer.headers.get('content-security-policy') ?? '');
    expect(one).toMatch(/script-src 'self' 'nonce-[A-Za-z0-9+/=]+' 'strict-dynamic';/);
    expect(one).not.toContain("script-src 'self' 'unsafe-inline'");
    expect(one).not.toBe(two);
  });
});
