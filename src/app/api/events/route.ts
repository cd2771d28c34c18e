import { answer, refuse } from '../../../server/http';
import { eventStream } from '../../../server/events';

export const dynamic = 'force-dynamic';

export const GET = (request: Request) =>
  answer(() => {
    const stream = eventStream(request.signal);
    // Not to be compressed on the way either: that would hold events back.
    return stream
      ? new Response(stream, {
          headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store, no-transform' },
        })
      : refuse({ status: 503, message: 'Too many windows follow this server.' });
  });
