/**
 * Who is answered: looks at every request before anything else does, files included. A page from elsewhere that reaches the
 * server under a name of its own (DNS rebinding) is told nothing; nor may another site write.
 */
import type { IncomingHttpHeaders } from 'node:http';
import type { FrontSettings } from './settings';

/** Why a request is not answered. */
export interface Turned {
  readonly status: number;
  readonly message: string;
  readonly headers?: Readonly<Record<string, string>>;
}

export interface GuardedRequest {
  readonly method: string;
  readonly url: string;
  readonly headers: IncomingHttpHeaders;
}

const READS = ['GET', 'HEAD'];
const WRITES = ['POST', 'PUT', 'PATCH', 'DELETE'];
const JSON_TYPE = /^application\/json\s*(;\s*charset\s*=\s*"?utf-8"?\s*)?$/i;
const FORM_TYPE = /^application\/x-www-form-urlencoded\s*(;|$)/i;

/** Pages that take a form, not JSON. */
export const FORMS = ['/sign-in', '/sign-out'];

/** Null where the request may go on. */
export function judge(
  { method, url, headers }: GuardedRequest,
  { hosts, tls }: Pick<FrontSettings, 'hosts' | 'tls'>,
): Turned | null {
  if (!READS.includes(method) && !WRITES.includes(method))
    return {
      status: 405,
      message: `There is no ${method.slice(0, 20)} here.`,
      headers: { allow: [...READS, ...WRITES].join(', ') },
    };
  const host = (headers.host ?? '').toLowerCase();
  if (!hosts.has(host))
    return {
      status: 421,
      message: `This server is not ${host.slice(0, 100) || 'without a name'}. It answers as ${[...hosts].join(', ')}.`,
    };
  if (!url.startsWith('/')) return { status: 400, message: 'The address must begin with a slash.' };
  try {
    decodeURIComponent(url);
  } catch {
    return { status: 400, message: 'The address holds an escape that stands for nothing.' };
  }
  if (READS.includes(method)) return null;
  const foreign = { status: 403, message: 'Writes come from the workbench itself only.' };
  if (
    headers.origin !== undefined
      ? headers.origin !== `${tls ? 'https' : 'http'}://${host}`
      : ['cross-site', 'same-site'].includes(String(headers['sec-fetch-site'] ?? ''))
  )
    return foreign;
  const empty = headers['transfer-encoding'] === undefined && Number(headers['content-length'] ?? 0) === 0;
  const type = headers['content-type'] ?? '';
  const path = url.split('?')[0]!;
  if (!empty && !(FORMS.includes(path) ? FORM_TYPE : JSON_TYPE).test(type))
    return { status: 415, message: 'Only application/json is taken here.' };
  return null;
}

/** Headers of every answer, whatever gives it. */
export function headersFor({ tls }: Pick<FrontSettings, 'tls'>): Readonly<Record<string, string>> {
  return {
    'x-content-type-options': 'nosniff',
    'referrer-policy': 'same-origin',
    'permissions-policy':
      'accelerometer=(), camera=(), display-capture=(), geolocation=(), gyroscope=(), magnetometer=(), microphone=(), midi=(), payment=(), usb=()',
    'cross-origin-opener-policy': 'same-origin',
    'cross-origin-resource-policy': 'same-origin',
    'x-frame-options': 'DENY',
    ...(tls ? { 'strict-transport-security': 'max-age=31536000' } : {}),
  };
}
