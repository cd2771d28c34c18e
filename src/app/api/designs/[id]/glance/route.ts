import { database } from '../../../../../server/db/connect';
import { glanceOf } from '../../../../../server/glances';
import { answer, refuse } from '../../../../../server/http';

export const GET = (_: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(async () => {
    const glance = await glanceOf(database(), (await params).id);
    return glance.ok ? Response.json(glance.value) : refuse(glance.error);
  });
