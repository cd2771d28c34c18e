/** Findings about guards: edges that are open, guards that take away what the network needs, guards that undo each other. */
import type { Command } from '../../edit/commands';
import { runsTrees } from '../../model/document';
import { label, switchName } from '../../tree/explain/phrases';
import { RECOVERY } from '../../model/legal';
import { isShut } from '../../topology/network';
import { mayBeShut } from '../../topology/shut';
import type { Solution } from '../../tree/settled';
import { guardRules } from '../guards/rules';
import { beyond, overConverter, protectionOf, type Protection } from '../guards/protection';
import type { Finding, Rule } from './finding';

export function guardFindings(solution: Solution): Finding[] {
  const { network } = solution;
  const all = protectionOf(solution);
  const telling = all.filter(({ verdict, p }) => verdict !== 'plain' || network.ports[p]!.edge);
  return [
    ...openEdges(solution, all),
    ...telling.flatMap((each) => portFindings(solution, each)),
    ...recoveryFindings(solution, all),
    ...converterFindings(solution, all),
    ...idleFindings(solution),
  ];
}

/** Edge ports without a guard, and access ports that are no edge ports: one finding each for the whole design. */
function openEdges(solution: Solution, all: readonly Protection[]): Finding[] {
  const { network } = solution;
  const rules = new Map(guardRules(solution, null).map((rule) => [rule.key, rule]));
  const say = (
    rule: Rule,
    open: readonly Protection[],
    remedy: string,
    text: (ports: string) => string,
    why: string,
  ): Finding[] => {
    const [first] = open;
    if (!first) return [];
    const switches = new Set(open.map((each) => each.switch)).size;
    const ports =
      open.length === 1
        ? label(network, first.p)
        : `${open.length} ports${switches === 1 ? ` of ${switchName(network.switches[network.owner[first.p]!]!)}` : ` on ${switches} switches`}`;
    const found = rules.get(remedy);
    return [
      {
        rule,
        text: text(ports),
        why,
        at: { switch: first.switch, port: first.port },
        remedies: found && found.commands.length > 0 ? [{ label: lower(found.label), commands: found.commands }] : [],
      },
    ];
  };
  const edges = all.filter(({ lead, verdict }) => lead === 'edge' && verdict === 'open');
  const access = all.filter(({ lead, p }) => lead === 'free' && network.ports[p]!.vlans.mode === 'access');
  return [
    ...say(
      'edge-unguarded',
      edges,
      'edge-bpdu-guard',
      (ports) => `${ports}: edge without a guard`,
      'A switch that somebody plugs in there takes part in the trees, and may become root.',
    ),
    ...say(
      'access-no-edge',
      access,
      'edge',
      (ports) => `${ports}: in access mode, but no edge`,
      'Hosts wait for the port to forward, every host that is switched on is told as a topology change, and guards of edge ports do not reach it.',
    ),
  ];
}

const lower = (text: string): string => (text.startsWith('BPDU') ? text : `${text[0]!.toLowerCase()}${text.slice(1)}`);

function portFindings(
  { network }: Solution,
  { p, switch: sw, port, lead, verdict, why, bpduGuard }: Protection,
): Finding[] {
  const own = network.ports[p]!;
  const far = beyond(network, p);
  const name = label(network, p);
  const set = (text: string, settings: object): { label: string; commands: Command[] } => ({
    label: text,
    commands: [{ do: 'set-port', switch: sw, port, ...settings }],
  });
  const found = (rule: Rule, text: string, reason: string, remedy: ReturnType<typeof set>): Finding => ({
    rule,
    text: `${name}: ${text}`,
    why: reason,
    at: { switch: sw, port },
    remedies: [remedy],
  });
  const findings: Finding[] = [];
  if (verdict === 'harms' && far !== null && own.bpduRx && bpduGuard)
    findings.push(
      found(
        'guard-shuts-way',
        'BPDU guard shuts the way to another switch',
        why,
        set('no BPDU guard here', { bpduGuard: false }),
      ),
    );
  if (verdict === 'harms' && own.rootGuard && lead === 'toward the root')
    findings.push(
      found('guard-holds-way', 'root guard on a way to the root', why, set('no root guard here', { rootGuard: false })),
    );
  if (!own.bpduRx)
    findings.push(
      found(
        'bpdus-discarded',
        bpduGuard ? 'BPDU guard, and every BPDU is discarded: discarding wins' : 'every BPDU is discarded',
        'A loop over this port is not seen, and nothing stops it.',
        set('take BPDUs in', { bpduRx: true }),
      ),
    );
  if (own.edge && far !== null && runsTrees(network.switches[network.owner[far]!]!))
    findings.push(
      found(
        'edge-between-switches',
        `edge port on a cable to ${label(network, far)}`,
        'It forwards at once when the cable is plugged in: a loop for a moment, until the first BPDU.',
        set('no edge port', { edge: false }),
      ),
    );
  return findings;
}

/** Ports that nobody opens where nobody is, and ports that open again and again though the cause lasts. */
function recoveryFindings({ network }: Solution, all: readonly Protection[]): Finding[] {
  return network.switches.flatMap((sw): Finding[] => {
    const own = all.filter((each) => each.switch === sw.id);
    const first = own.find(({ p }) => mayBeShut(network.ports[p]!, sw));
    const shut = own.find(({ p }) => isShut(network, p));
    const set = (recovery: number | null, label: string) => ({
      label,
      commands: [{ do: 'set-switch', switch: sw.id, recovery } as const],
    });
    if (shut && sw.recovery !== undefined)
      return [
        {
          rule: 'recovery-in-vain',
          text: `${label(network, shut.p)}: opens every ${sw.recovery} s, and is shut again at once`,
          why: 'What shuts it lasts: each time the port forwards for a moment, and two trees are joined or a loop is closed.',
          at: { switch: sw.id, port: shut.port },
          remedies: [set(null, 'no recovery')],
        },
      ];
    if (!first || !sw.unmanned || sw.recovery !== undefined) return [];
    return [
      {
        rule: 'recovery-off-unmanned',
        text: `${switchName(sw)}: nobody is there to open a shut port, and none opens by itself`,
        why: 'A host that once sent a BPDU is cut off until somebody travels there.',
        at: { switch: sw.id, port: first.port },
        remedies: [set(RECOVERY.default, `recovery after ${RECOVERY.default} s`)],
      },
    ];
  });
}

/** Ways to the root over a media converter, where nothing but BPDUs tells that the other side is gone. */
function converterFindings({ network }: Solution, all: readonly Protection[]): Finding[] {
  return all.flatMap(({ p, switch: sw, port, lead }): Finding[] => {
    if (lead !== 'toward the root' || !overConverter(network, p) || network.ports[p]!.loopGuard) return [];
    return [
      {
        rule: 'converter-without-loop-guard',
        text: `${label(network, p)}: a way to the root over a media converter, without loop guard`,
        why: 'The port keeps its signal when the fibre behind the converter dies: it hears no more BPDUs, forwards, and may close a loop.',
        at: { switch: sw, port },
        remedies: [{ label: 'loop guard here', commands: [{ do: 'set-port', switch: sw, port, loopGuard: true }] }],
      },
    ];
  });
}

/** Guards of ports that take part in no tree. */
function idleFindings({ network }: Solution): Finding[] {
  return network.switches.flatMap((sw, s): Finding[] => {
    if (runsTrees(sw)) return [];
    const own = sw.ports.filter(({ bpduGuard, rootGuard, loopGuard }) => bpduGuard === true || rootGuard || loopGuard);
    const [first] = own;
    if (!first) return [];
    const p = network.firstPort[s]! + sw.ports.indexOf(first);
    return [
      {
        rule: 'guard-without-tree',
        text: `${own.length === 1 ? label(network, p) : `${own.length} ports of ${switchName(sw)}`}: guards, but the switch runs no spanning tree`,
        why: 'It floods BPDUs like any frame: no guard of the tree ever acts there.',
        at: { switch: sw.id, port: first.id },
        remedies: [
          {
            label: 'no such guards there',
            commands: own.map((port) => ({
              do: 'set-port' as const,
              switch: sw.id,
              port: port.id,
              bpduGuard: null,
              rootGuard: false,
              loopGuard: false,
            })),
          },
        ],
      },
    ];
  });
}
