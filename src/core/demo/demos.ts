/** The demos: sites of one organisation as found, with the problems that the work is about. */
import { problemText } from '../model/problem';
import { readDesign } from '../model/read';
import type { Design } from '../model/document';
import type { DemoSite } from './sites';
import observatory from './fernhollow.knot.json';
import office from './town.knot.json';
import station from './valley.knot.json';

/** Fernhollow Observatory: a tree for each VLAN, roots that nobody chose, ridge links that are not bundled. */
export const fernhollow = (): Design => checked(observatory);

/** Its sibling, the valley station: many VLANs on two MST instances, and one switch whose map is not that of the others. */
export const valleyStation = (): Design => checked(station);

/** The town office: a core with a tree for each VLAN, a closet of two standard switches through which its BPDUs come back to it, and a stack. */
export const townOffice = (): Design => checked(office);

const DEMOS: Readonly<Record<DemoSite, () => Design>> = {
  observatory: fernhollow,
  valley: valleyStation,
  town: townOffice,
};

/** A demo, checked and with its defaults. */
export const demoOf = (site: DemoSite): Design => DEMOS[site]();

function checked(document: unknown): Design {
  const design = readDesign(document);
  if (!design.ok) throw new Error(design.error.map(problemText).join('; '));
  return design.value;
}
