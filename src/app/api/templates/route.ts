import { database } from '../../../server/db/connect';
import { answer } from '../../../server/http';
import { listTemplates } from '../../../server/templates';

export const GET = () => answer(() => Response.json({ templates: listTemplates(database()) }));
