import { historyPartSchema } from '../../../../../contract/api';
import { database } from '../../../../../server/db/connect';
import { historyOf } from '../../../../../server/designService';
import { answer, refuse } from '../../../../../server/http';

export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(async () => {
    const part = historyPartSchema.safeParse(Object.fromEntries(new URL(request.url).searchParams));
    if (!part.success)
      return refuse({ status: 422, message: 'A part of a history is after=, before= and most= with whole numbers.' });
    const history = historyOf(database(), (await params).id, part.data);
    return history.ok ? Response.json({ entries: history.value }) : refuse(history.error);
  });
