/** Intents to begin with: what is true of every campus in order, and what holds of a network now. */
import { isMultiple, type Design, type Severity } from '../../model/document';
import { treeInstance, treeVlan, type SwitchId, type TreeId } from '../../model/ids';
import { VlanSet } from '../../model/vlanSet';
import { standbyRoot } from '../../tree/explain/election';
import { keptLine, readIntent, verdictOf, writeIntent } from './intents';
import type { Settled } from './settled';

/** A line with how much it matters. */
export interface Suggestion {
  readonly line: string;
  readonly severity: Severity;
}

const must = (line: string): Suggestion => ({ line, severity: 'must' });
const should = (line: string): Suggestion => ({ line, severity: 'should' });

/** What is asked of every campus. */
export const CAMPUS: readonly Suggestion[] = [
  must('all hosts reach each other'),
  must('whatever link or member fails, all hosts reach each other'),
  must('whatever switch fails, all hosts reach each other'),
  must('whatever switch fails, access switches never become root'),
  should('no finding of root-by-mac'),
  should('no finding of standby-by-mac'),
  should('every edge port is guarded'),
  should('no link above 70 %'),
  should('whatever link or member or switch fails, no link above 90 %'),
];

/** Sets to begin with, by what they are called. */
export const SETS: readonly { readonly name: string; readonly says: string; readonly lines: readonly Suggestion[] }[] =
  [
    {
      name: 'a campus in order',
      says: 'what is asked of every campus: hosts reach each other whatever fails, no access switch becomes root, edges are guarded',
      lines: CAMPUS,
    },
    {
      name: 'strong roots',
      says: 'core switches are root and standby of every tree, chosen by priority, and share the trees',
      lines: [
        must('core switches are root of all trees'),
        must('core switches are standby of all trees'),
        must('whatever switch fails, access switches never become root'),
        should('no finding of root-by-mac'),
        should('no finding of standby-by-mac'),
        should('no finding of one-root-for-all'),
      ],
    },
    {
      name: 'quick recovery',
      says: 'how long hosts may be cut off while a failure is got over: simulated',
      lines: [
        must('whatever link or member fails, all hosts are cut off no longer than 1 s'),
        should('whatever switch fails, all hosts are cut off no longer than 3 s'),
      ],
    },
  ];

/** What holds now and is worth keeping so, as lines by names: who is root and standby, bundles, the region, and what is asked of every campus. */
export function holdingNow(of: Settled): Suggestion[] {
  const { design } = of.network;
  const lines = [
    ...placesIn(of),
    ...bundlesIn(design),
    ...(design.switches.some(isMultiple) ? regionLine(design) : []),
    ...CAMPUS,
  ];
  return lines.filter(({ line }) => {
    const meant = readIntent(design, line, true);
    return meant.ok && !meant.value.whatever && verdictOf(meant.value.claim, of).is === 'holds';
  });
}

/** Lines that a design does not have yet, as it would keep them; those that it cannot read are left out. */
export function newTo(design: Design, all: readonly Suggestion[], byId = false): Suggestion[] {
  const there = new Set(design.intents.map(({ line }) => line));
  return all.flatMap(({ line, severity }) => {
    const meant = readIntent(design, line, byId);
    if (!meant.ok) return [];
    const kept = keptLine(design, meant.value);
    if (there.has(kept)) return [];
    there.add(kept);
    return [{ line: kept, severity }];
  });
}

/** By switch, the trees that it has a place in. */
function placesIn(of: Settled): Suggestion[] {
  const holders = { root: new Map<SwitchId, TreeId[]>(), standby: new Map<SwitchId, TreeId[]>() };
  for (const tree of of.solution.trees) {
    const root = of.rootOf(tree);
    if (root === null) continue;
    const standby = standbyRoot(tree, root);
    for (const [as, s] of [
      ['root', root],
      ['standby', standby],
    ] as const) {
      const id = of.network.switches[s]?.id;
      if (id) holders[as].set(id, [...(holders[as].get(id) ?? []), tree.id]);
    }
  }
  return (['root', 'standby'] as const).flatMap((as) =>
    [...holders[as]].flatMap(([id, trees]) => treesAs(trees).map((said) => must(`${quoted(id)} is ${as} of ${said}`))),
  );
}

/** Trees as lines say them: VLANs, and instances. */
function treesAs(trees: readonly TreeId[]): string[] {
  const vlans = trees.flatMap((id) => treeVlan(id) ?? []);
  const mstids = trees.flatMap((id) => treeInstance(id) ?? []);
  return [
    ...(vlans.length > 0 ? [`vlan ${VlanSet.empty.with(vlans).format()}`] : []),
    ...(mstids.length > 0 ? [`instance ${mstids.join(',')}`] : []),
    ...(vlans.length + mstids.length === 0 ? ['all trees'] : []),
  ];
}

const quoted = (id: string): string => `"${id.replace(/[\\"]/g, '\\$&')}"`;

const bundlesIn = ({ bundles }: Design): Suggestion[] =>
  bundles.map(({ switch: sw, id, ports }) =>
    must(`bundle ${quoted(sw)} ${quoted(id)} is up with at least ${ports.length} members`),
  );

const regionLine = ({ switches }: Design): Suggestion[] => [
  must(
    `${switches
      .filter(isMultiple)
      .map(({ id }) => quoted(id))
      .join(', ')} are in one region`,
  ),
];

/** All intents of a design as lines that can be pasted. */
export const linesOfIntents = (design: Design): string =>
  design.intents
    .map(({ line }) => {
      const meant = readIntent(design, line, true);
      return meant.ok ? writeIntent(design, meant.value) : `# ${line}`;
    })
    .join('\n');
