import { writeSchema } from '../../../../../contract/api';
import { database } from '../../../../../server/db/connect';
import { editDesign, stepDesign } from '../../../../../server/designService';
import { answer, readBody, refuse } from '../../../../../server/http';

export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(async () => {
    const { id } = await params;
    const wish = await readBody(request, writeSchema);
    if (!wish.ok) return refuse(wish.error);
    const { value } = wish;
    const revision =
      value.kind === 'edit'
        ? editDesign(database(), id, value.base, value.commands)
        : stepDesign(database(), id, value.base, value.kind, value.target);
    return revision.ok ? Response.json({ revision: revision.value }, { status: 201 }) : refuse(revision.error);
  });
