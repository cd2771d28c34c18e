import { database } from '../../../../../server/db/connect';
import { restoreDesign } from '../../../../../server/designService';
import { answer, refuse } from '../../../../../server/http';

export const POST = (_: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(async () => {
    const done = restoreDesign(database(), (await params).id);
    return done.ok ? new Response(null, { status: 204 }) : refuse(done.error);
  });
