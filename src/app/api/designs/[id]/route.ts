import { database } from '../../../../server/db/connect';
import { deleteDesign, openDesign, renameDesign } from '../../../../server/designService';
import { answer, readBody, refuse } from '../../../../server/http';

type Context = { params: Promise<{ id: string }> };

export const GET = (_: Request, { params }: Context) =>
  answer(async () => {
    const open = openDesign(database(), (await params).id);
    return open.ok ? Response.json(open.value) : refuse(open.error);
  });

export const PATCH = (request: Request, { params }: Context) =>
  answer(async () => {
    const wish = await readBody(request, 'rename');
    const revision = wish.ok ? renameDesign(database(), (await params).id, wish.value.name) : wish;
    return revision.ok ? Response.json(revision.value) : refuse(revision.error);
  });

export const DELETE = (_: Request, { params }: Context) =>
  answer(async () => {
    const done = deleteDesign(database(), (await params).id);
    return done.ok ? new Response(null, { status: 204 }) : refuse(done.error);
  });
