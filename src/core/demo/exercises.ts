/** Exercises on the observatory: something to bring about in it, said as intents that do not hold yet. */
import type { Design, Group, Intent, Severity } from '../model/document';
import type { GroupId, SwitchId } from '../model/ids';

export interface Exercise {
  readonly name: string;
  readonly task: string;
  /** The exercise on the demo as it is. */
  readonly on: (demo: Design) => Design;
}

const must = (line: string): readonly [string, Severity] => [line, 'must'];
const should = (line: string): readonly [string, Severity] => [line, 'should'];

interface Asked {
  readonly name: string;
  readonly task: string;
  readonly lines: readonly (readonly [line: string, severity: Severity])[];
  /** What is done already. */
  readonly given?: (design: Design) => Design;
}

const ASKED: readonly Asked[] = [
  {
    name: 'Place the root',
    task: 'Nobody has chosen a root, so the lowest MAC address has. Make ridge-a root of every tree, by priority and not by chance.',
    lines: [must('ridge-a is root of all trees'), must('no finding of root-by-mac')],
  },
  {
    name: 'A standby beside it',
    task: 'When the root dies, the switch beside it should take over, and never one at the edge, whichever switch it is that fails.',
    lines: [
      must('ridge-a is root of all trees'),
      must('ridge-b is standby of all trees'),
      must('whatever switch fails, access switches never become root'),
      should('no finding of standby-by-mac'),
    ],
  },
  {
    name: 'Two roots share the load',
    task: 'Give each ridge half of the VLANs, so that no uplink stands idle; each stands by for the other.',
    lines: [
      must('ridge-a is root of vlan 15,35,55'),
      must('ridge-b is root of vlan 25,45,65'),
      must('ridge-b is standby of vlan 15,35,55'),
      must('ridge-a is standby of vlan 25,45,65'),
      must('whatever link or member fails, all hosts reach each other'),
      should('no finding of one-root-for-all'),
    ],
  },
  {
    name: 'Which end blocks',
    task: 'ridge-a is root. The workshop should send the pictures of VLAN 25 over ridge-b, and everything else straight to the root. No bridge priority is to change.',
    lines: [
      must('ridge-a is root of all trees'),
      must('workshop 1 blocks vlan 25'),
      must('workshop 1 forwards vlan 15,35,45,55,65'),
      must('link workshop 2 carries vlan 25'),
    ],
    given: (design) => ({
      ...design,
      switches: design.switches.map((sw) => (sw.id === 'ridge-a' ? { ...sw, priority: 4096 } : sw)),
    }),
  },
  {
    name: 'Guard the edges',
    task: 'Whoever plugs a switch into a socket at a desk must not take part in the trees. Guard every edge, and leave the others as they are.',
    lines: [
      must('every edge port is guarded'),
      must('all hosts reach each other'),
      should('no finding of guard-shuts-way'),
      should('no finding of edge-unguarded'),
    ],
  },
  {
    name: 'A building without power',
    task: 'Both ridges stand in the control building. Its power fails: the domes must still reach each other, in every VLAN. One cable is enough, if it is the right one.',
    lines: [
      must('whatever group fails, all hosts reach each other'),
      must('whatever link or member fails, all hosts reach each other'),
      should('whatever switch fails, all hosts reach each other'),
    ],
    given: (design) => ({
      ...design,
      groups: [{ id: 'control' as GroupId, name: 'Control building', kind: 'building' } satisfies Group],
      switches: design.switches.map((sw) => (RIDGES.has(sw.id) ? { ...sw, group: 'control' as GroupId } : sw)),
    }),
  },
];
const RIDGES: ReadonlySet<SwitchId> = new Set(['ridge-a', 'ridge-b'] as SwitchId[]);

/** From placing a root to surviving the loss of a building. */
export const EXERCISES: readonly Exercise[] = ASKED.map(({ name, task, lines, given = (design) => design }) => ({
  name,
  task,
  on: (demo) => ({
    ...given(demo),
    name: `Exercise: ${name}`,
    notes: '',
    exercise: { task, begins: 0 },
    intents: lines.map(([line, severity], i): Intent => ({ id: `i${i + 1}`, line, severity, note: '' })),
  }),
}));
