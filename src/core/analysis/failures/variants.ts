/** The same network run otherwise, to lay its outages beside: in another mode, with the shortest timers, with every edge guarded. */
import { SPOKEN, traitsOf, type Design, type Dialect } from '../../model/document';
import { spokenAs } from '../regions/asDialect';

/** The shortest that 802.1D-1998 table 8-3 allows, seconds. */
const SHORTEST = { hello: 1, maxAge: 6, forwardDelay: 4 } as const;

export interface Variant {
  readonly key: string;
  readonly name: string;
  readonly of: (design: Design) => Design;
}

export const VARIANTS: readonly Variant[] = [
  ...SPOKEN.map((dialect: Dialect): Variant => ({
    key: dialect,
    name: traitsOf(dialect).name,
    of: (design) => spokenAs(design, dialect),
  })),
  {
    key: 'timers',
    name: 'Shortest timers',
    of: (design) => ({
      ...design,
      switches: design.switches.map((sw) => ({ ...sw, timers: { ...sw.timers, ...SHORTEST } })),
    }),
  },
  {
    key: 'guards',
    name: 'BPDU guard on edges',
    of: (design) => ({ ...design, switches: design.switches.map((sw) => ({ ...sw, edgeBpduGuard: true })) }),
  },
];
