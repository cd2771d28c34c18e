import { database } from '../../../../../../server/db/connect';
import { answer } from '../../../../../../server/http';
import { earlierEvents } from '../../../../../../server/watch/service';

export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(async () => {
    const before = Number(new URL(request.url).searchParams.get('before'));
    const events = Number.isSafeInteger(before) ? earlierEvents(database(), (await params).id, before) : [];
    return Response.json({ events });
  });
