/** How much was done in an exercise. */
import { changesBetween } from '../../model/derive/changes';
import type { Design, Worksheet } from '../../model/document';
import type { TreeId } from '../../model/ids';

/** Settings that differ from the state it began with, things that came or went counted as one each: of what trees or runs read. */
export const settingsTouched = (begin: Design, now: Design): number =>
  changesBetween(begin, now).filter(({ node }) => node.facts?.reads !== 'nothing' && node.facts?.reads !== 'layout')
    .length;

/** The best worksheet for a tree that was compared since an exercise began; null where none was. */
export function bestSheet(begin: Design | null, now: Design, tree: TreeId): Worksheet | null {
  const before = new Set(begin?.worksheets.map(({ at }) => at));
  const since = now.worksheets.filter((sheet) => sheet.tree === tree && !before.has(sheet.at));
  return since.reduce<Worksheet | null>(
    (best, sheet) => (best === null || sheet.right * best.of > best.right * sheet.of ? sheet : best),
    null,
  );
}
