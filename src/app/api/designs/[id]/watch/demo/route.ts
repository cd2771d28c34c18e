import { database } from '../../../../../../server/db/connect';
import { answer, refuse } from '../../../../../../server/http';
import { watchDemo } from '../../../../../../server/watch/service';

export const POST = (_: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(async () => {
    const done = await watchDemo(database(), (await params).id);
    return done.ok ? new Response(null, { status: 204 }) : refuse(done.error);
  });
