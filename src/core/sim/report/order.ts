/** The order of events of a run in sentences, each leading to its instant. */
import type { Run } from '../run';
import type { MemberState } from '../../modes/lacp/state';
import type { BridgePortId, SwitchId, TreeId } from '../../model/ids';
import { treesName } from '../../model/ids';
import type { Action } from '../../model/scenario';
import type { Design } from '../../model/document';
import { actionKind } from '../../model/actions/actions';
import { actionText } from '../scenario/scenario';
import { SECOND, type Micros, type RunRole, type RunState } from '../../modes/entity';
import { compileNetwork, type Network } from '../../topology/network';
import type { MemberMark } from '../trace/memberLog';
import type { Cause, PortChange } from '../trace/recording';

export interface OrderLine {
  readonly t: Micros;
  /** An action of the scenario, ports of a switch, or frames that circle. */
  readonly kind: 'action' | 'bundle' | 'ports' | 'storm' | 'rest';
  readonly text: string;
  /** What it is about: a switch with a port of it, where there is one. */
  readonly switch?: SwitchId;
  readonly port?: BridgePortId;
  readonly trees: readonly TreeId[];
}

/** Most lines that are told; a run with more says so in the last one. */
export const MOST_LINES = 5000;

const ROLE_NAMES: Readonly<Record<RunRole, string>> = {
  root: 'root port',
  designated: 'designated',
  alternate: 'alternate',
  backup: 'backup',
  master: 'master port',
  disabled: 'without signal',
};
const DOES: Readonly<Record<RunState, string>> = {
  disabled: 'is without signal',
  blocking: 'blocks',
  listening: 'listens',
  discarding: 'discards',
  learning: 'learns',
  forwarding: 'forwards',
};

/** Tells a run; actions come before what follows from them. */
export function orderOf(run: Run, actions: readonly Action[]): OrderLine[] {
  const network = compileNetwork(run.design, null, []);
  const trees = run.trees;
  const lines = [
    ...actions.map((action) => actionLine(run.design, action)),
    ...memberLines(run, network),
    ...portLines(run, network, trees),
    ...stormLines(run),
  ];
  if (run.settledAt !== null && run.recording.count > 0)
    lines.push({ t: Math.round(run.settledAt * SECOND), kind: 'rest', text: 'Nothing moves any more.', trees: [] });
  const rank = { action: 0, bundle: 1, ports: 2, storm: 3, rest: 4 } as const;
  lines.sort((a, b) => a.t - b.t || rank[a.kind] - rank[b.kind]);
  return lines.length > MOST_LINES
    ? [
        ...lines.slice(0, MOST_LINES),
        { t: lines[MOST_LINES]!.t, kind: 'rest', text: `${lines.length - MOST_LINES} more events follow.`, trees: [] },
      ]
    : lines;
}

function actionLine(design: Design, action: Action): OrderLine {
  const about = actionKind(action).about?.(action);
  return {
    t: Math.round(action.at * SECOND),
    kind: 'action',
    text: `${actionText(design, action)}.`,
    trees: [],
    ...(about ? { switch: about } : {}),
  };
}

/** Members of bundles that came to stand otherwise, those of one end at one moment together. */
function memberLines({ members: { marks } }: Run, { bundles }: Network): OrderLine[] {
  const before = new Map<number, MemberMark>();
  const steps = new Map<
    string,
    { readonly t: Micros; readonly end: number; readonly parts: Map<MemberState, string[]> }
  >();
  for (const mark of marks) {
    const was = before.get(mark.member);
    before.set(mark.member, mark);
    if (!was || was.state === mark.state) continue;
    const { end, id } = bundles.members[mark.member]!;
    const step = steps.get(`${mark.t} ${end}`) ?? { t: mark.t, end, parts: new Map<MemberState, string[]>() };
    steps.set(`${mark.t} ${end}`, step);
    step.parts.set(mark.state, [...(step.parts.get(mark.state) ?? []), id]);
  }
  return [...steps.values()].map(({ t, end, parts }): OrderLine => {
    const { name, ownerName, owner, members } = bundles.ends[end]!;
    const [first] = parts.values();
    const port = bundles.members[members.find((m) => bundles.members[m]!.id === first![0])!]!.at;
    const told = [...parts].map(([state, ids]) =>
      ids.length === 1
        ? `member ${ids[0]} ${MEMBER_DOES[state][0]}`
        : `members ${ids.join(', ')} ${MEMBER_DOES[state][1]}`,
    );
    return {
      t,
      kind: 'bundle',
      text: `${owner.kind === 'host' ? ownerName : `${ownerName}, bundle ${name}`}: ${told.join('; ')}.`,
      trees: [],
      ...(owner.kind === 'switch' ? { switch: owner.switch, port: port.port } : {}),
    };
  });
}

/** Of one member, and of several. */
const MEMBER_DOES: Readonly<Record<MemberState, readonly [string, string]>> = {
  active: ['is active', 'are active'],
  standby: ['stands by', 'stand by'],
  individual: ['is a port of its own', 'are ports of their own'],
  waiting: ['waits', 'wait'],
  down: ['has no signal', 'have no signal'],
};

/** What one port did in some trees at one moment. */
interface Step {
  readonly change: PortChange;
  readonly was: RunRole;
  readonly trees: number[];
}

function portLines({ recording }: Run, network: Network, trees: readonly TreeId[]): OrderLine[] {
  const start = recording.pictureAt(-1);
  const roles = Array.from({ length: recording.trees * recording.ports }, (_, place) =>
    recording.roleIn(start, Math.floor(place / recording.ports), place % recording.ports),
  );
  const lines: OrderLine[] = [];
  /** What each switch did at one moment. */
  const steps = new Map<number, Step[]>();
  let now: Micros = -1;
  const flush = (): void => {
    for (const all of steps.values()) lines.push(lineOf(network, trees, all, all[0]!));
    steps.clear();
  };
  for (let i = 0; i < recording.count && lines.length <= MOST_LINES; i += 1) {
    const change = recording.change(i);
    if (change.t !== now) flush();
    now = change.t;
    const place = change.tree * recording.ports + change.port;
    const was = roles[place]!;
    roles[place] = change.role;
    const s = network.owner[change.port]!;
    const mine = steps.get(s) ?? [];
    steps.set(s, mine);
    const same = mine.find(
      ({ change: other, was: role }) =>
        other.port === change.port &&
        other.from === change.from &&
        other.to === change.to &&
        other.role === change.role &&
        role === was,
    );
    if (same) same.trees.push(change.tree);
    else mine.push({ change, was, trees: [change.tree] });
  }
  flush();
  return lines;
}

function lineOf(network: Network, trees: readonly TreeId[], steps: readonly Step[], first: Step): OrderLine {
  const s = network.owner[first.change.port]!;
  const told = [...new Set(steps.flatMap((step) => step.trees))].sort((a, b) => a - b);
  const every = steps.every((step) => step.trees.length === told.length);
  const where = (of: readonly number[]): string =>
    of.length === trees.length ? '' : ` in ${treesName(of.map((tree) => trees[tree]!))}`;
  const parts = steps.map((step) => `${stepText(network, step)}${every ? '' : where(step.trees)}`);
  return {
    t: first.change.t,
    kind: 'ports',
    switch: network.switches[s]!.id,
    port: network.ports[first.change.port]!.id,
    trees: told.map((tree) => trees[tree]!),
    text: `${network.switches[s]!.name ?? network.switches[s]!.id}${every ? where(told) : ''}: ${parts.join('; ')}${causeOf(network, first.change.cause)}.`,
  };
}

function stepText(network: Network, { change: { port, from, to, role }, was }: Step): string {
  const name = `port ${network.ports[port]!.id}`;
  if (to === 'disabled')
    return was === 'root' ? `loses its root port ${network.ports[port]!.id}` : `${name} ${DOES.disabled}`;
  if (was === role)
    return `${name} ${to === 'forwarding' || to === 'learning' ? DOES[to] : `${DOES[to]}${from === 'forwarding' ? ' now' : ''}`}`;
  const until = was === 'disabled' ? '' : `, ${ROLE_NAMES[was]} until now,`;
  const state = to === from ? `${DOES[to]} as before` : `${DOES[to]}${to === 'forwarding' ? ' at once' : ''}`;
  return `${name}${until} is ${ROLE_NAMES[role]} and ${state}`;
}

/** What brought it about, where that is not seen from the line itself. */
function causeOf(network: Network, cause: Cause): string {
  switch (cause.kind) {
    case 'bpdu':
      return ` (heard at port ${network.ports[cause.port]!.id})`;
    case 'guard':
      return ' (shut by BPDU guard)';
    case 'probe':
      return ' (stopped by loop probe)';
    case 'timer':
      return ' (a timer ran out)';
    case 'signal':
    case 'setting':
      return '';
  }
}

function stormLines({ storms }: Run): OrderLine[] {
  return storms.flatMap(({ vlan, start, end, links, copies, endless, heldTo }): OrderLine[] => [
    {
      t: Math.round(start * SECOND),
      kind: 'storm',
      text: endless
        ? `Broadcasts of VLAN ${vlan} circle on ${links.join(', ')}: one has become ${copies} frames after two dozen hops${heldTo === null ? '' : `, and a storm limit holds it to ${heldTo} a second`}.`
        : `Broadcasts of VLAN ${vlan} come back, or come twice, over ${links.join(', ')}, where a static bundle checks nothing.`,
      trees: [],
    },
    ...(end === null
      ? []
      : [
          {
            t: Math.round(end * SECOND),
            kind: 'storm' as const,
            text: endless ? `The loop in VLAN ${vlan} is broken.` : `Broadcasts of VLAN ${vlan} no longer come back.`,
            trees: [],
          },
        ]),
  ]);
}
