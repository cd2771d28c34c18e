/** Notices of a watch to others: a webhook as JSON, a collector by syslog (RFC 5424 over UDP, RFC 5426). */
import { createSocket } from 'node:dgram';
import { hostname } from 'node:os';
import type { WatchEvent } from '../core/exchange/observation/watch/events';
import { syslogMessage } from '../core/exchange/observation/watch/syslog';

export interface Receivers {
  readonly webhook: string | null;
  /** `host` or `host:port`. */
  readonly syslog: string | null;
}

const SYSLOG_PORT = 514;
/** Milliseconds. */
const PATIENCE = 5000;

/** Sends them; gives why that failed, in words without the addresses, null where it did not. */
export async function notify(
  { webhook, syslog }: Receivers,
  about: string,
  events: readonly WatchEvent[],
  at: number,
): Promise<string | null> {
  if (events.length === 0) return null;
  const time = new Date(at).toISOString();
  const failed = await Promise.all([
    webhook === null ? null : toWebhook(webhook, { network: about, at: time, events }),
    syslog === null ? null : toSyslog(syslog, events, time),
  ]);
  return failed.filter((each) => each !== null).join(' ') || null;
}

async function toWebhook(url: string, body: object): Promise<string | null> {
  try {
    const answer = await fetch(url, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
      signal: AbortSignal.timeout(PATIENCE),
      redirect: 'error',
    });
    return answer.ok ? null : `The webhook answered ${answer.status}.`;
  } catch (error) {
    return error instanceof Error && error.name === 'TimeoutError'
      ? 'The webhook did not answer in time.'
      : 'The webhook could not be reached.';
  }
}

function toSyslog(address: string, events: readonly WatchEvent[], time: string): Promise<string | null> {
  const [host = '', port = String(SYSLOG_PORT)] = address.split(':');
  return new Promise((done) => {
    const socket = createSocket('udp4');
    const end = (why: string | null): void => {
      socket.close();
      done(why);
    };
    let left = events.length;
    let wrong: string | null = null;
    socket.on('error', () => (wrong = 'The syslog address could not be reached.'));
    for (const event of events)
      socket.send(syslogMessage(event, time, hostname()), Number(port), host, (error) => {
        if (error) wrong = 'The syslog address could not be reached.';
        left -= 1;
        if (left === 0) end(wrong);
      });
  });
}
