import { database } from '../../../server/db/connect';
import { headRevision } from '../../../server/db/designStore';
import { answer, readBody, refuse } from '../../../server/http';
import { live } from '../../../server/live';

export const POST = (request: Request) =>
  answer(async () => {
    const said = await readBody(request, 'presence');
    if (!said.ok) return refuse(said.error);
    return Response.json({ windows: live().look(said.value), revision: headRevision(database(), said.value.design) });
  });
