import { database } from '../../../../../server/db/connect';
import { answer, readBody, refuse } from '../../../../../server/http';
import { readingState, stopReading } from '../../../../../server/watch/runner';
import { readOnce } from '../../../../../server/watch/service';

type Context = { params: Promise<{ id: string }> };

export const GET = (_: Request, { params }: Context) =>
  answer(async () => Response.json(readingState((await params).id)));

export const POST = (request: Request, { params }: Context) =>
  answer(async () => {
    const source = await readBody(request, 'source');
    const done = source.ok ? readOnce(database(), (await params).id, source.value) : source;
    return done.ok ? new Response(null, { status: 204 }) : refuse(done.error);
  });

export const DELETE = (_: Request, { params }: Context) =>
  answer(async () => {
    stopReading((await params).id);
    return new Response(null, { status: 204 });
  });
