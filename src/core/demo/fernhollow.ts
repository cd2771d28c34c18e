/** The demo: Fernhollow Observatory as found, with the problems that the work is about. */
import { readDesign } from '../design/read';
import type { Design } from '../design/schema';
import document from './fernhollow.knot.json';

/** The demo design, checked and with its defaults. */
export function fernhollow(): Design {
  const design = readDesign(document);
  if (!design.ok) throw new Error(design.error.map((problem) => problem.path).join(', '));
  return design.value;
}
