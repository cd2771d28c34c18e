import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { database } from '../../../server/db/connect';
import { openDesign } from '../../../server/designService';
import { WorkbenchPage } from '../../../workbench/frame/WorkbenchPage';

interface Props {
  readonly params: Promise<{ id: string }>;
}

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const open = openDesign(database(), (await params).id);
  return { title: open.ok ? open.value.design.name.slice(0, 80) : 'No such design' };
}

export default async function Page({ params }: Props) {
  const open = openDesign(database(), (await params).id);
  if (!open.ok) notFound();
  return <WorkbenchPage open={open.value} />;
}
