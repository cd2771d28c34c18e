import { fileNameOf, writeDesign } from '../../../../../core/model/derive/write';
import { database } from '../../../../../server/db/connect';
import { openDesign, storedDesign } from '../../../../../server/designService';
import { answer, refuse } from '../../../../../server/http';

export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(async () => {
    const { id } = await params;
    // What cannot be read is taken out as it is stored.
    if (new URL(request.url).searchParams.get('as') === 'stored') {
      return Response.json(storedDesign(database(), id), {
        headers: { 'content-disposition': 'attachment; filename="stored-design.json"' },
      });
    }
    const open = openDesign(database(), id);
    if (!open.ok) return refuse(open.error);
    return new Response(writeDesign(open.value.design), {
      headers: {
        'content-type': 'application/json; charset=utf-8',
        'content-disposition': `attachment; filename="${fileNameOf(open.value.design)}"`,
      },
    });
  });
