/** What happens to a design elsewhere: one stream of events a browser, whichever of its windows holds it, told to the others. */
import { locks } from './kept';
import { liveEventSchema, type LiveEvent } from '../../contract/api';

const NAME = 'knot-path-live';

/** `again`: the stream is there anew, and what happened meanwhile was not heard. */
export type Heard = LiveEvent | { readonly kind: 'again' };

/** Hears until it is stopped. */
export function hearLive(hear: (event: Heard) => void): () => void {
  if (typeof EventSource === 'undefined' || typeof BroadcastChannel === 'undefined') return () => undefined;
  const channel = new BroadcastChannel(NAME);
  const stopped = new AbortController();
  let source: EventSource | null = null;
  let release: () => void = () => undefined;
  const tell = (event: Heard): void => {
    hear(event);
    channel.postMessage(event);
  };
  channel.onmessage = ({ data }: MessageEvent<Heard>) => hear(data);
  const hold = (): Promise<void> => {
    source = new EventSource('/api/events');
    source.onopen = () => tell({ kind: 'again' });
    source.onmessage = ({ data }: MessageEvent<string>) => {
      const event = liveEventSchema.safeParse(JSON.parse(data));
      if (event.success) tell(event.data);
    };
    return new Promise((done) => (release = done));
  };
  // Browsers allow six connections to a server: with a stream for each of seven windows nothing would load any more.
  const shared = locks();
  if (shared) void shared.request(NAME, { signal: stopped.signal }, hold).catch(() => undefined);
  else void hold();
  return () => {
    stopped.abort();
    source?.close();
    release();
    channel.close();
  };
}
