import { database } from '../../../../../server/db/connect';
import { historyOf } from '../../../../../server/designService';
import { answer, refuse } from '../../../../../server/http';

export const GET = (_: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(async () => {
    const history = historyOf(database(), (await params).id);
    return history.ok ? Response.json({ entries: history.value }) : refuse(history.error);
  });
