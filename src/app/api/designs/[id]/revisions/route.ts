import type { Write } from '../../../../../contract/api';
import { database } from '../../../../../server/db/connect';
import { editBeside, restoreRevision, stepDesign } from '../../../../../server/designService';
import { answer, readBody, refuse } from '../../../../../server/http';

export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(async () => {
    const { id } = await params;
    const wish = await readBody(request, 'write');
    if (!wish.ok) return refuse(wish.error);
    const revision = await apply(id, wish.value);
    return revision.ok ? Response.json(revision.value, { status: 201 }) : refuse(revision.error);
  });

function apply(id: string, wish: Write) {
  switch (wish.kind) {
    case 'edit':
      return editBeside(database(), id, wish.base, wish.commands, wish);
    case 'restore':
      return restoreRevision(database(), id, wish.base, wish.target, wish);
    case 'undo':
    case 'redo':
      return stepDesign(database(), id, wish.base, wish.kind, wish.target, wish);
  }
}
