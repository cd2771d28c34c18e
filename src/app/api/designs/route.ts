import { database } from '../../../server/db/connect';
import { createDesign, listDesigns } from '../../../server/designService';
import { answer, readNewDesign, refuse } from '../../../server/http';

export const GET = () => answer(() => Response.json({ designs: listDesigns(database()) }));

export const POST = (request: Request) =>
  answer(async () => {
    const wish = await readNewDesign(request);
    const id = wish.ok ? createDesign(database(), wish.value) : wish;
    return id.ok ? Response.json({ id: id.value }, { status: 201 }) : refuse(id.error);
  });
