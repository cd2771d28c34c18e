import { fileNameOf, writeDesign } from '../../../../../core/design/write';
import { database } from '../../../../../server/db/connect';
import { openDesign } from '../../../../../server/designService';
import { answer, refuse } from '../../../../../server/http';

export const GET = (_: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(async () => {
    const open = openDesign(database(), (await params).id);
    if (!open.ok) return refuse(open.error);
    return new Response(writeDesign(open.value.design), {
      headers: {
        'content-type': 'application/json; charset=utf-8',
        'content-disposition': `attachment; filename="${fileNameOf(open.value.design)}"`,
      },
    });
  });
