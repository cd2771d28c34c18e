/** What actions about links have in common. */
import { z } from '../../base/zod';
import { endSchema } from '../common';
import { linkDelay, type Link } from '../link';
import { ids, unless, type ActionFault, type CommandCall, type Topology } from './kind';

export const linkFields = {
  link: ids.link,
  /** The ends that it had when the action was written: should the link go, another one there can be found. */
  between: z.strictObject({ a: endSchema, b: endSchema }).optional(),
};
export const linkFaults = ({ link }: { readonly link: string }, { links }: Topology): ActionFault[] =>
  unless(links, link, 'link', 'a link');

/** A link that is not in the design. */
export const newLink = z.strictObject({ id: ids.link, a: endSchema, b: endSchema, delay: linkDelay.optional() });
/** Plugs it in, without signal as yet. */
export const addDead = (link: Omit<Link, 'up'>): CommandCall => ({ do: 'add-link', link: { ...link, up: false } });
/** Cuts or restores. */
export const setUp = (link: string, up: boolean): CommandCall => ({ do: 'set-link', link, up });
