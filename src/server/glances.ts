/** Designs at a glance, made once a revision: small ones at once, large ones beside the other requests. */
import { glanceAt, type Glance } from '../core/analysis/glance/glance';
import { fail, ok, type Result } from '../core/base/result';
import type { Db } from './db/handle';
import * as store from './db/designStore';
import { inWorker } from './heavy/run';
import type { Refused } from './heavy/task';

/** More switches than this are looked at in a worker. */
const SMALL = 40;
const MOST_KEPT = 1000;

const kept = globalThis as typeof globalThis & { knotPathGlances?: Map<string, Glance> };

/** What there is to see and to find in the newest revision of a design. */
export async function glanceOf(db: Db, id: string): Promise<Result<Glance, Refused>> {
  const revision = store.headRevision(db, id);
  if (revision === null) return fail({ status: 404, message: 'There is no such design. It may have been deleted.' });
  const glances = (kept.knotPathGlances ??= new Map<string, Glance>());
  const key = `${id} ${revision}`;
  const known = glances.get(key);
  if (known) return ok(known);
  const design = designAt(db, id, revision);
  if (!design.ok) return design;
  const made: Result<Glance, Refused> =
    design.value.switches.length <= SMALL
      ? ok(glanceAt(design.value))
      : await inWorker<Glance>({ kind: 'glance', design: design.value });
  if (made.ok) {
    glances.set(key, made.value);
    if (glances.size > MOST_KEPT) glances.delete([...glances.keys()][0]!);
  }
  return made;
}

function designAt(db: Db, id: string, revision: number): Result<store.Loaded['design'], Refused> {
  try {
    return ok(store.loadDesign(db, id, revision).design);
  } catch (error) {
    if (!(error instanceof store.UnreadableDesign)) throw error;
    return fail({ status: 422, message: 'Nothing of this design can be read.' });
  }
}
