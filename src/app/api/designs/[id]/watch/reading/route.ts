import { database } from '../../../../../../server/db/connect';
import { answer, refuse } from '../../../../../../server/http';
import { readingAt } from '../../../../../../server/watch/service';

export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(async () => {
    const at = Number(new URL(request.url).searchParams.get('at'));
    if (!Number.isSafeInteger(at)) return refuse({ status: 400, message: 'A moment is a number of milliseconds.' });
    const reading = readingAt(database(), (await params).id, at);
    return reading.ok ? Response.json(reading.value) : refuse(reading.error);
  });
