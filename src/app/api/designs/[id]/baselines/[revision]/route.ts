import { database } from '../../../../../../server/db/connect';
import { nameBaseline } from '../../../../../../server/designService';
import { answer, readBody, refuse } from '../../../../../../server/http';

export const PUT = (request: Request, { params }: { params: Promise<{ id: string; revision: string }> }) =>
  answer(async () => {
    const { id, revision } = await params;
    const wish = await readBody(request, 'baseline');
    const done = wish.ok ? nameBaseline(database(), id, Number(revision), wish.value.name) : wish;
    return done.ok ? new Response(null, { status: 204 }) : refuse(done.error);
  });
