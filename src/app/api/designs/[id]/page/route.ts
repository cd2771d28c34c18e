import { pageHtml } from '../../../../../core/exchange/page';
import { fileStemOf } from '../../../../../core/model/derive/write';
import { database } from '../../../../../server/db/connect';
import { openDesign } from '../../../../../server/designService';
import { answer, refuse } from '../../../../../server/http';
import { pageParts } from '../../../../../server/pageParts';

export const GET = (_request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(async () => {
    const open = openDesign(database(), (await params).id);
    if (!open.ok) return refuse(open.error);
    const { design, revision } = open.value;
    return new Response(pageHtml(design, revision, pageParts()), {
      headers: {
        'content-type': 'text/html; charset=utf-8',
        'content-disposition': `attachment; filename="${fileStemOf(design)}.html"`,
      },
    });
  });
