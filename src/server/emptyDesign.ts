/** A new design without anything in it, for switches of a spanning tree mode. */
import { modeForAll } from '../core/analysis/regions/modeForAll';
import { fail, ok, type Result } from '../core/base/result';
import { editAll } from '../core/edit/edit';
import { FORMAT, type Design, type Dialect } from '../core/model/document';
import { problemText } from '../core/model/problem';
import { checkedDesign, type Refused } from './heavy/task';

export function emptyDesign(name: string, mode: Dialect | undefined): Result<Design, Refused> {
  const empty = checkedDesign({ format: FORMAT.name, version: FORMAT.version, name, switches: [], links: [] });
  if (!empty.ok || !mode) return empty;
  const edited = editAll(empty.value, modeForAll(empty.value, mode));
  return edited.ok ? ok(edited.value.design) : fail({ status: 422, message: problemText(edited.error) });
}
