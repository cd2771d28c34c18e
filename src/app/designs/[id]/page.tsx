import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { database } from '../../../server/db/connect';
import { openDesign } from '../../../server/designService';
import { Unreadable } from '../../../workbench/designs/Unreadable';
import { FirstMap } from '../../../workbench/shell/FirstMap';
import { WorkbenchPage } from '../../../workbench/shell/WorkbenchPage';

interface Props {
  readonly params: Promise<{ id: string }>;
}

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const open = openDesign(database(), (await params).id);
  return {
    title: open.ok
      ? open.value.design.name.slice(0, 80)
      : open.error.status === 404
        ? 'No such design'
        : 'A design that cannot be read',
  };
}

export default async function Page({ params }: Props) {
  const open = openDesign(database(), (await params).id);
  if (!open.ok && open.error.status === 404) notFound();
  if (!open.ok)
    return <Unreadable id={(await params).id} message={open.error.message} details={open.error.details ?? []} />;
  return <WorkbenchPage open={open.value} first={<FirstMap open={open.value} />} />;
}
