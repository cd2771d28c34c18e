import { leanDesign } from '../../../../../../core/model/derive/write';
import { database } from '../../../../../../server/db/connect';
import { documentAt } from '../../../../../../server/designService';
import { answer, refuse } from '../../../../../../server/http';

export const GET = (_: Request, { params }: { params: Promise<{ id: string; number: string }> }) =>
  answer(async () => {
    const { id, number } = await params;
    const document = documentAt(database(), id, Number(number));
    return document.ok ? Response.json({ document: leanDesign(document.value) }) : refuse(document.error);
  });
