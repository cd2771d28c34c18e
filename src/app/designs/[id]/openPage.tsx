import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { database } from '../../../server/db/connect';
import { openDesign } from '../../../server/designService';
import { Unreadable } from '../../../workbench/designs/Unreadable';
import { FirstMap } from '../../../workbench/shell/FirstMap';
import { WorkbenchPage } from '../../../workbench/shell/WorkbenchPage';

export interface DesignProps {
  readonly params: Promise<{ id: string }>;
}

export async function titleOf({ params }: DesignProps): Promise<Metadata> {
  const open = openDesign(database(), (await params).id);
  return {
    title: open.ok
      ? open.value.design.name.slice(0, 80)
      : open.error.status === 404
        ? 'No such design'
        : 'A design that cannot be read',
  };
}

/** The workbench of a design, to change it or, `readOnly`, to look at it alone. */
export async function openPage({ params }: DesignProps, { readOnly }: { readonly readOnly: boolean }) {
  const open = openDesign(database(), (await params).id);
  if (!open.ok && open.error.status === 404) notFound();
  if (!open.ok)
    return <Unreadable id={(await params).id} message={open.error.message} details={open.error.details ?? []} />;
  return <WorkbenchPage open={{ ...open.value, readOnly }} first={<FirstMap open={open.value} />} />;
}
