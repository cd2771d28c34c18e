/** What happens in a run, and the entities that run in it. */
import type { Bpdu } from '../../modes/bpdu';
import type { Micros, ProtocolEntity } from '../../modes/entity';
import type { Lacpdu } from '../../modes/lacp/state';
import type { Vector } from '../../modes/vector';

/** Something that is due at a moment. */
export type Event =
  | {
      readonly kind: 'arrive';
      readonly tree: number;
      readonly port: number;
      readonly bpdu: Bpdu;
      readonly origin: number;
      readonly through: readonly number[];
    }
  | { readonly kind: 'wake'; readonly running: Running }
  | { readonly kind: 'lacpdu'; readonly member: number; readonly lacpdu: Lacpdu; readonly from: number }
  | { readonly kind: 'lacp'; readonly end: number }
  | { readonly kind: 'do'; readonly act: () => void };

/**
 * The order of what happens at one moment: what arrives is taken in before a timer that ends in the same microsecond is
 * served, as by hardware that reads its ports first; then by tree and port, so that it does not hang on what was sent first.
 * Of so many trees and ports, switches, members and ends of bundles: small numbers, which cost less.
 */
export function ranksOf(trees: number, places: number): (event: Event) => number {
  const of = (kind: number, tree: number, place: number): number => (kind * (trees + 1) + tree) * places + place;
  return (event) => {
    switch (event.kind) {
      case 'do':
        return of(0, 0, 0);
      case 'lacpdu':
        return of(1, 0, event.member);
      case 'arrive':
        return of(2, event.tree, event.port);
      case 'lacp':
        return of(3, 0, event.end);
      case 'wake':
        return of(4, event.running.trees[0]!, event.running.switch);
    }
  };
}

/** An entity in its place. */
export interface Running {
  readonly entity: ProtocolEntity;
  /** Its trees: one, or with MSTP the CIST and its instances. */
  readonly trees: readonly number[];
  readonly switch: number;
  /** Global indices of its ports. */
  readonly ports: readonly number[];
  /** The moment of the wake-up that counts. */
  wakes: Micros;
  /** What has changed: tree of its own x ports + port. */
  readonly dirty: Set<number>;
  /** The hellos that it would send, none of which is run; null where it sends them. */
  unsent: readonly SteadyHello[] | null;
  /** By its ports, the hellos that would come there, none of which is run. */
  readonly unheard: (SteadyHello | null)[];
  /** How many of those there are. */
  hearing: number;
  /** How often its machines had run when those were last held against it, and at its latest hello. */
  answered: number;
  ranBefore: number;
}

/** Hellos of a port that all say the same, and nothing new to whoever hears them: they are not run, but known. */
export interface SteadyHello {
  readonly from: Running;
  readonly port: number;
  readonly bpdu: Bpdu;
  /** The first of them; what follows comes every `period`. */
  readonly first: Micros;
  readonly period: Micros;
  /** How long each is on its way. */
  readonly delay: Micros;
  /** Who hears them, and at which of its ports; null for nobody. */
  readonly to: Running | null;
  readonly at: number;
  /** What the port there holds. */
  readonly held: Vector | null;
  /** The first that has not been told of. */
  untold: Micros;
}
