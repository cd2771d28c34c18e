/** What happens in a run, and the entities that run in it. */
import type { Bpdu } from '../../modes/bpdu';
import type { Micros, ProtocolEntity } from '../../modes/entity';
import type { Lacpdu } from '../../modes/lacp/state';

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
 */
export const rankOf = (kind: Event['kind'], tree = 0, port = 0): number =>
  KINDS.indexOf(kind) * MOST_TREES * MOST_PORTS + tree * MOST_PORTS + port;
const KINDS: readonly Event['kind'][] = ['do', 'lacpdu', 'arrive', 'lacp', 'wake'];
const [MOST_TREES, MOST_PORTS] = [2 ** 13, 2 ** 20];

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
}
