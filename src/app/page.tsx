import { database } from '../server/db/connect';
import { listDesigns } from '../server/designService';
import { DesignsPage } from '../workbench/designs/DesignsPage';

export const dynamic = 'force-dynamic';

export default function Page() {
  return <DesignsPage designs={listDesigns(database())} password={Boolean(process.env.KNOT_PATH_PASSWORD)} />;
}
