import { database } from '../../../../../server/db/connect';
import { answer, readBody, refuse } from '../../../../../server/http';
import { forgetWatch, setWatch, watchOf } from '../../../../../server/watch/service';

type Context = { params: Promise<{ id: string }> };

export const GET = (request: Request, { params }: Context) =>
  answer(async () => {
    const after = new URL(request.url).searchParams.get('after');
    const known = after !== null && /^\d{1,15}$/.test(after) ? Number(after) : undefined;
    const watch = watchOf(database(), (await params).id, known);
    return watch.ok ? Response.json(watch.value) : refuse(watch.error);
  });

export const PUT = (request: Request, { params }: Context) =>
  answer(async () => {
    const settings = await readBody(request, 'watch');
    const done = settings.ok ? setWatch(database(), (await params).id, settings.value) : settings;
    return done.ok ? new Response(null, { status: 204 }) : refuse(done.error);
  });

export const DELETE = (_: Request, { params }: Context) =>
  answer(async () => {
    const done = forgetWatch(database(), (await params).id);
    return done.ok ? new Response(null, { status: 204 }) : refuse(done.error);
  });
