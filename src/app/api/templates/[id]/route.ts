import { database } from '../../../../server/db/connect';
import { answer, readBody, refuse } from '../../../../server/http';
import { keepTemplate, removeTemplate } from '../../../../server/templates';

interface Context {
  readonly params: Promise<{ readonly id: string }>;
}

export const PUT = (request: Request, { params }: Context) =>
  answer(async () => {
    const wish = await readBody(request, 'template');
    const kept = wish.ok ? keepTemplate(database(), { ...wish.value, id: (await params).id }) : wish;
    return kept.ok ? new Response(null, { status: 204 }) : refuse(kept.error);
  });

export const DELETE = (_request: Request, { params }: Context) =>
  answer(async () => {
    const removed = removeTemplate(database(), (await params).id);
    return removed.ok ? new Response(null, { status: 204 }) : refuse(removed.error);
  });
