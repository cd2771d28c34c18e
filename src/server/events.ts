/** What is told live, as a stream of server-sent events. */
import { live } from './live';

/** Something is sent at least so often, so that a connection that has died is noticed. */
const PING_MS = 15_000;
/** A reader that is so many events behind is let go; it will come again. */
const MOST_BEHIND = 1000;

/** A stream until `signal` says that its reader is gone; null where there are too many. */
export function eventStream(signal: AbortSignal): ReadableStream<Uint8Array> | null {
  const encoder = new TextEncoder();
  let send: (text: string) => void = () => undefined;
  const end = live().watch((event) => send(`data: ${JSON.stringify(event)}\n\n`));
  if (!end) return null;
  const ping = setInterval(() => send(': here\n\n'), PING_MS);
  ping.unref();
  const stop = (): void => {
    clearInterval(ping);
    end();
  };
  return new ReadableStream<Uint8Array>(
    {
      start(controller) {
        const close = (): void => {
          stop();
          try {
            controller.close();
          } catch {
            // Closed already.
          }
        };
        send = (text) => {
          if ((controller.desiredSize ?? 0) < -MOST_BEHIND) return close();
          try {
            controller.enqueue(encoder.encode(text));
          } catch {
            stop();
          }
        };
        signal.addEventListener('abort', close);
        send(': here\n\n');
      },
      cancel: stop,
    },
    { highWaterMark: 1 },
  );
}
