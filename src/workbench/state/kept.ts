/** Unsent changes in the browser's own database: they outlive a crash, a reload and a closed tab, and are offered again. */
import { createStore, del, entries, set, type UseStore } from 'idb-keyval';
import { writeSchema, type Write } from '../../contract/api';
import { z } from '../../core/base/zod';

/** What one page had not sent. */
export interface KeptWrites {
  readonly key: string;
  /** Milliseconds since 1970. */
  readonly at: number;
  readonly writes: readonly Write[];
}

const keptSchema = z.object({ design: z.string(), page: z.string(), at: z.number(), writes: z.array(writeSchema) });

let opened: UseStore | null = null;
const kept = (): UseStore => (opened ??= createStore('knot-path', 'unsent'));
const lockOf = (page: string): string => `knot-path-page-${page}`;

/** Keeps a page's unsent writes; none takes the record away. Where the browser has no room for it, nothing is kept. */
export async function keepWrites(design: string, page: string, writes: readonly Write[]): Promise<void> {
  const key = `${design} ${page}`;
  try {
    if (writes.length === 0) await del(key, kept());
    else await set(key, { design, page, at: Date.now(), writes }, kept());
  } catch {
    // Private windows and full disks: the page itself still has them.
  }
}

/** Locks among the windows of a browser; older browsers and plain http have none. */
export const locks = (): LockManager | undefined => (navigator as { readonly locks?: LockManager }).locks;

/** Says that this page is alive, as long as it is: what it keeps is not offered to others. */
export function holdPage(page: string): () => void {
  let release: () => void = () => undefined;
  void locks()?.request(lockOf(page), () => new Promise<void>((done) => (release = done)));
  return () => release();
}

/** What pages that are gone did not send of a design, the oldest first. */
export async function orphanedWrites(design: string): Promise<KeptWrites[]> {
  try {
    const held = new Set((await locks()?.query())?.held?.map((lock) => lock.name) ?? []);
    return (await entries<string, unknown>(kept()))
      .flatMap(([key, value]): KeptWrites[] => {
        const record = keptSchema.safeParse(value);
        return record.success && record.data.design === design && !held.has(lockOf(record.data.page))
          ? [{ key, at: record.data.at, writes: record.data.writes }]
          : [];
      })
      .sort((a, b) => a.at - b.at);
  } catch {
    return [];
  }
}

export async function forgetWrites(key: string): Promise<void> {
  try {
    await del(key, kept());
  } catch {
    // Offered once more the next time.
  }
}
