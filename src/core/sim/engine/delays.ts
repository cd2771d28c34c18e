/** How long frames take. Microseconds. */
import type { Micros } from '../../modes/entity';
import type { Network } from '../../topology/network';

/** What a frame takes over a cable that says nothing else, and a BPDU in a switch before it is acted upon. */
export const LINK_DELAY: Micros = 5;
export const HANDLING: Micros = 1000;

/** What a frame takes over a link, by index (-1 is a host's cable), and until it is acted upon at its end. */
export const delayOf = ({ design }: Pick<Network, 'design'>, link: number): Micros =>
  (design.links[link]?.delay ?? LINK_DELAY) + HANDLING;
