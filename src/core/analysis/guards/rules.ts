/** Guards by rule: what a rule would set, and on how many ports, before it is done. */
import type { Command } from '../../edit/commands';
import { hasLoopProbe } from '../../model/guard';
import { RECOVERY } from '../../model/legal';
import type { SwitchId } from '../../model/ids';
import type { Solution } from '../../tree/settled';
import { beyond, protectionOf, type Protection } from './protection';

export interface GuardRule {
  readonly key: string;
  /** As the words on a button. */
  readonly label: string;
  /** What it is for. */
  readonly why: string;
  /** What it would set: empty where all is so already. */
  readonly commands: readonly Command[];
  /** How many ports it would change, or switches. */
  readonly changes: number;
  readonly of: 'port' | 'switch';
}

/** The rules, on the switches that are chosen, or on all. */
export function guardRules(solution: Solution, only: ReadonlySet<SwitchId> | null): GuardRule[] {
  const { network } = solution;
  const all = protectionOf(solution).filter((each) => !only || only.has(each.switch));
  const portOf = ({ p }: Protection) => network.ports[p]!;
  const setPorts = (which: readonly Protection[], settings: object): Command[] =>
    which.map(({ switch: sw, port }) => ({ do: 'set-port', switch: sw, port, ...settings }));
  const edges = all.filter(({ lead }) => lead === 'edge');
  const unguarded = edges.filter((each) => !each.bpduGuard);
  const offHere = unguarded.filter((each) => portOf(each).bpduGuard === false);
  const switches = network.switches.filter((sw) => edges.some((each) => each.switch === sw.id));
  const without = switches.filter((sw) => sw.recovery === undefined && (sw.edgeBpduGuard || unguarded.length > 0));
  const bare = switches.filter((sw) => unguarded.some((each) => each.switch === sw.id) && !sw.edgeBpduGuard);
  // An edge port on a cable to another switch would be shut by what is set for all edges.
  const cabled = new Set(
    all.filter(({ lead, p }) => lead !== 'edge' && network.ports[p]!.edge).map((each) => each.switch),
  );
  const bpdu: readonly Command[] = [
    ...bare
      .filter(({ id }) => !cabled.has(id))
      .map(({ id }): Command => ({ do: 'set-switch', switch: id, edgeBpduGuard: true })),
    ...setPorts(
      unguarded.filter((each) => cabled.has(each.switch)),
      { bpduGuard: true },
    ),
    ...offHere
      .filter((each) => !cabled.has(each.switch))
      .map(({ switch: sw, port }): Command => ({ do: 'set-port', switch: sw, port, bpduGuard: null })),
  ];
  const unprobed = switches.filter((sw) => !sw.edgeLoopProbe && !cabled.has(sw.id));
  const unprobedEdges = edges.filter(
    (each) => cabled.has(each.switch) && !hasLoopProbe(portOf(each), network.switches[network.owner[each.p]!]!),
  );
  const tierOf = (p: number): string => network.switches[network.owner[p]!]!.tier;
  const downward = all.filter((each) => {
    const far = beyond(network, each.p);
    return (
      each.lead === 'away from the root' && far !== null && tierOf(far) === 'access' && tierOf(each.p) !== 'access'
    );
  });
  const unrooted = downward.filter((each) => !portOf(each).rootGuard);
  const unlooped = all.filter((each) => each.lead === 'toward the root' && !portOf(each).loopGuard);
  const plugged = all.filter((each) => each.lead === 'free' && portOf(each).vlans.mode === 'access');
  return [
    {
      key: 'edge-bpdu-guard',
      label: 'BPDU guard on every edge port',
      why: 'A BPDU on a port for hosts means a switch that nobody planned, or a loop: it shuts the port.',
      commands: bpdu,
      changes: unguarded.length,
      of: 'port',
    },
    {
      key: 'recovery',
      label: `Shut ports open again after ${RECOVERY.default} s`,
      why: 'Where nobody is near to open them: a port whose cause lasts is shut again by the next BPDU.',
      commands: without.map(({ id }) => ({ do: 'set-switch', switch: id, recovery: RECOVERY.default })),
      changes: without.length,
      of: 'switch',
    },
    {
      key: 'edge-loop-probe',
      label: 'Loop probe on every edge port',
      why: 'A small switch without spanning tree that is looped onto itself sends no BPDU back: the switch’s own test frame tells.',
      commands: [
        ...unprobed.map(({ id }): Command => ({ do: 'set-switch', switch: id, edgeLoopProbe: true })),
        ...setPorts(unprobedEdges, { loopProbe: true }),
      ],
      changes: unprobed.length + new Set(unprobedEdges.map((each) => each.switch)).size,
      of: 'switch',
    },
    {
      key: 'root-guard',
      label: 'Root guard toward access',
      why: 'Whatever is plugged in behind an access switch, no root moves there.',
      commands: setPorts(unrooted, { rootGuard: true }),
      changes: unrooted.length,
      of: 'port',
    },
    {
      key: 'loop-guard',
      label: 'Loop guard on every way to the root',
      why: 'A port that keeps a loop open must not forward because BPDUs go missing, as over a fibre that is heard one way only.',
      commands: setPorts(unlooped, { loopGuard: true }),
      changes: unlooped.length,
      of: 'port',
    },
    {
      key: 'edge',
      label: 'Access ports without a switch become edge ports',
      why: 'They forward at once, tell no topology change, and take the guards of edge ports.',
      commands: setPorts(plugged, { edge: true }),
      changes: plugged.length,
      of: 'port',
    },
  ];
}
