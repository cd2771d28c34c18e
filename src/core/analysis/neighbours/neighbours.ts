/** What each port is plugged into, as drawn and as the switches themselves report it, and what would make the drawing true. */
import type { Command } from '../../edit/commands';
import { MAX_PORTS } from '../../model/limits';
import { FreshNames, freshCable } from '../../edit/fresh';
import type { HostId, LinkId, PortId, SwitchId } from '../../model/ids';
import {
  hostSchema,
  portSchema,
  switchSchema,
  type Design,
  type Host,
  type LinkEnd,
  type Observed,
  type Port,
  type Switch,
} from '../../model/document';
import type { Finding, Remedy } from '../findings/finding';

/** How a port's observed neighbour stands to the drawn one. */
export type Verdict =
  /** Drawn and seen alike. */
  | 'as drawn'
  /** Seen, with nothing drawn. */
  | 'missing cable'
  /** The right device, but another port of it. */
  | 'other port'
  | 'other switch'
  /** Seen, but nothing in the design is called that. */
  | 'unknown device'
  /** The design has no such switch or port. */
  | 'unknown port'
  /** Drawn, but the switch did not report it, though it reported others. */
  | 'not seen'
  /** Nobody has looked, or there is nothing to compare. */
  | 'not observed';

/** One port: what is drawn, what was seen, and what follows. */
export interface Neighbour {
  /** Null where the design has no such switch or port. */
  readonly at: { readonly switch: SwitchId; readonly port: PortId } | null;
  readonly switchName: string;
  readonly portName: string;
  readonly drawn: { readonly text: string; readonly link: LinkId | null; readonly host: HostId | null } | null;
  readonly observed: Observed | null;
  readonly observedText: string;
  readonly verdict: Verdict;
  /** Makes the drawing what was seen; null where there is nothing to do or no way. */
  readonly takeOver: Remedy | null;
}

type Drawn = {
  readonly text: string;
  readonly link: LinkId | null;
  readonly host: Host | null;
  readonly far: LinkEnd | null;
};

/** Every port of the design in its order, then what was seen elsewhere. */
export function neighboursOf(design: Design): Neighbour[] {
  const index = new Index(design);
  const seen = new Map<string, Observed>();
  const strangers: Observed[] = [];
  const reporting = new Set<SwitchId>();
  for (const row of design.observed) {
    const sw = index.switchCalled(row.switch);
    const port = sw && index.portCalled(sw, row.port);
    if (sw) reporting.add(sw.id);
    if (sw && port) seen.set(keyOf({ switch: sw.id, port: port.id }), row);
    else strangers.push(row);
  }
  const rows = design.switches.flatMap((sw) =>
    sw.ports.map((port): Neighbour => {
      const at = { switch: sw.id, port: port.id };
      const drawn = index.drawnAt(at);
      const observed = seen.get(keyOf(at)) ?? null;
      const base = {
        at,
        switchName: nameOf(sw),
        portName: port.id,
        drawn: drawn && { text: drawn.text, link: drawn.link, host: drawn.host?.id ?? null },
        observed,
        observedText: observed ? observedText(observed) : '',
      };
      if (!observed) {
        if (!drawn || !reporting.has(sw.id)) return { ...base, verdict: 'not observed', takeOver: null };
        // Hosts rarely speak up, so silence says nothing about them.
        if (drawn.host) return { ...base, verdict: 'not observed', takeOver: null };
        return {
          ...base,
          verdict: 'not seen',
          takeOver: { label: 'unplug it', commands: [{ do: 'remove-link', link: drawn.link! }] },
        };
      }
      return { ...base, ...judged(design, index, at, drawn, observed) };
    }),
  );
  return [
    ...rows,
    ...strangers.map((row): Neighbour => {
      const sw = index.switchCalled(row.switch);
      return {
        at: null,
        switchName: sw ? nameOf(sw) : row.switch,
        portName: row.port,
        drawn: null,
        observed: row,
        observedText: observedText(row),
        verdict: 'unknown port',
        takeOver: sw ? addPortAndCable(design, index, sw, row) : null,
      };
    }),
  ];
}

/** Observed neighbours that the drawing does not show, for the list of findings. */
export function neighbourFindings(design: Design): Finding[] {
  if (design.observed.length === 0) return [];
  const told = new Set<string>();
  return neighboursOf(design).flatMap((row): Finding[] => {
    if (row.verdict === 'as drawn' || row.verdict === 'not observed') return [];
    // A cable is seen from both ends: one finding is enough.
    const pair = JSON.stringify(
      row.takeOver?.commands.map((command) => ('link' in command ? command.link : command)) ??
        `${row.switchName} ${row.portName}`,
    );
    if (told.has(pair)) return [];
    told.add(pair);
    const saw = row.observed ? `reports ${row.observedText}` : 'does not report it';
    return [
      {
        rule: 'neighbour-differs',
        text: `${row.switchName} port ${row.portName}: drawn ${row.drawn ? `to ${row.drawn.text}` : 'without a cable'}, but the switch ${saw}`,
        why: 'What is plugged in is not what is drawn: every answer here is about the drawing.',
        at: row.at ?? {},
        remedies: row.takeOver ? [row.takeOver] : [],
      },
    ];
  });
}

const nameOf = (sw: Switch): string => sw.name ?? sw.id;
const keyOf = (end: { readonly switch: string; readonly port: string }): string => `${end.switch}\n${end.port}`;
const observedText = (seen: Observed): string =>
  seen.devicePort === undefined ? seen.device : `${seen.device} port ${seen.devicePort}`;

function judged(
  design: Design,
  index: Index,
  at: LinkEnd,
  drawn: Drawn | null,
  seen: Observed,
): Pick<Neighbour, 'verdict' | 'takeOver'> {
  const sw = index.switchFor(seen);
  const host = sw ? null : index.hostFor(seen);
  if (host) {
    if (drawn?.host?.id === host.id) return { verdict: 'as drawn', takeOver: null };
    // A host with one card has moved; one with several has one more plugged in than was drawn.
    const attach = host.attach.length <= 1 ? [at] : [...host.attach, at];
    return {
      verdict: drawn ? 'other switch' : 'missing cable',
      takeOver: {
        label: `plug ${host.name ?? host.id} in here`,
        commands: [...unplug(drawn, at), { do: 'set-host', host: host.id, attach }],
      },
    };
  }
  if (!sw) {
    if (drawn?.host && seen.kind !== 'switch')
      return {
        verdict: 'unknown device',
        takeOver: {
          label: `call it ${seen.device.slice(0, 40)}`,
          commands: [{ do: 'set-host', host: drawn.host.id, name: seen.device }],
        },
      };
    return { verdict: 'unknown device', takeOver: addDevice(design, index, at, drawn, seen) };
  }
  const far = seen.devicePort === undefined ? null : index.portCalled(sw, seen.devicePort);
  if (drawn?.far?.switch === sw.id && (seen.devicePort === undefined || drawn.far.port === far?.id))
    return { verdict: 'as drawn', takeOver: null };
  const verdict: Verdict = !drawn ? 'missing cable' : drawn.far?.switch === sw.id ? 'other port' : 'other switch';
  return { verdict, takeOver: cableAsSeen(design, index, at, drawn, sw, far, seen.devicePort) };
}

/** A cable from here to the port that was seen, in place of whatever is drawn at both. */
function cableAsSeen(
  design: Design,
  index: Index,
  at: LinkEnd,
  drawn: Drawn | null,
  sw: Switch,
  far: Port | null,
  label: string | undefined,
): Remedy {
  const commands: Command[] = [...unplug(drawn, at)];
  const here = index.portAt(at)!;
  let port = far?.id;
  if (!port && label !== undefined) {
    const added = portSchema.parse({
      ...new FreshNames(design).port(sw.ports, label),
      speed: here.speed,
      vlans: here.vlans,
    });
    commands.push({ do: 'add-port', switch: sw.id, port: added });
    port = added.id;
  }
  const farEnd = port === undefined ? null : { switch: sw.id, port };
  const there = farEnd && index.drawnAt(farEnd);
  if (farEnd && there && there.link !== drawn?.link) commands.push(...unplug(there, farEnd));
  const to = { switch: sw.id, port };
  const rest = drawn?.link ? { ...design, links: design.links.filter((link) => link.id !== drawn.link) } : design;
  commands.push(...freshCable(rest, at, to, here.speed).commands);
  return { label: 'draw it as seen', commands };
}

const unplug = (drawn: Drawn | null, at: LinkEnd): Command[] => {
  if (!drawn) return [];
  if (drawn.link) return [{ do: 'remove-link', link: drawn.link }];
  return [
    { do: 'set-host', host: drawn.host!.id, attach: drawn.host!.attach.filter((end) => keyOf(end) !== keyOf(at)) },
  ];
};

/** A switch or host that the design does not have yet, plugged in where it was seen. */
function addDevice(design: Design, index: Index, at: LinkEnd, drawn: Drawn | null, seen: Observed): Remedy {
  const fresh = new FreshNames(design);
  const mac = seen.mac !== undefined && !index.hasMac(seen.mac) ? seen.mac : fresh.mac();
  const here = index.portAt(at)!;
  if (seen.kind === 'switch') {
    const id = fresh.switchId(seen.device);
    const port = portSchema.parse({ ...fresh.port([], seen.devicePort ?? null), speed: here.speed, vlans: here.vlans });
    const sw = switchSchema.parse({
      id,
      ...(id === seen.device ? {} : { name: seen.device }),
      mac,
      ...fresh.mode(),
      ports: [port],
    });
    const link = { id: fresh.linkId(), a: at, b: { switch: id, port: port.id }, up: true };
    return {
      label: 'add the switch',
      commands: [...unplug(drawn, at), { do: 'add-switch', switch: sw }, { do: 'add-link', link }],
    };
  }
  const id = fresh.hostId(seen.device);
  const vlan = here.vlans.mode === 'access' ? here.vlans.vlan : here.vlans.native;
  const host = hostSchema.parse({ id, ...(id === seen.device ? {} : { name: seen.device }), mac, vlan, attach: [at] });
  return { label: 'add the host', commands: [...unplug(drawn, at), { do: 'add-host', host }] };
}

/** Adds the port that was seen, then the cable from it. */
function addPortAndCable(design: Design, index: Index, sw: Switch, seen: Observed): Remedy | null {
  if (sw.ports.length >= MAX_PORTS.switch) return null;
  const port = portSchema.parse(new FreshNames(design).port(sw.ports, seen.port));
  const far = index.switchFor(seen);
  const add: Command = { do: 'add-port', switch: sw.id, port };
  if (!far || seen.devicePort === undefined) return { label: 'add the port', commands: [add] };
  const farPort = index.portCalled(far, seen.devicePort);
  if (!farPort || index.drawnAt({ switch: far.id, port: farPort.id }))
    return { label: 'add the port', commands: [add] };
  const link = {
    id: new FreshNames(design).linkId(),
    a: { switch: sw.id, port: port.id },
    b: { switch: far.id, port: farPort.id },
    up: true,
  };
  return { label: 'add the port and its cable', commands: [add, { do: 'add-link', link }] };
}

/** Finds switches, ports and hosts by what other devices call them. */
class Index {
  private readonly byId: ReadonlyMap<SwitchId, Switch>;
  private readonly names = new Map<string, Switch>();
  private readonly macs = new Map<string, Switch>();
  private readonly hostNames = new Map<string, Host>();
  private readonly hostMacs = new Map<string, Host>();
  private readonly drawn = new Map<string, Drawn>();

  constructor(design: Design) {
    this.byId = new Map(design.switches.map((sw) => [sw.id, sw]));
    const put = <T>(map: Map<string, T>, key: string, value: T) => map.has(key) || map.set(key, value);
    for (const sw of design.switches) put(this.names, nameOf(sw).toLowerCase(), sw);
    for (const sw of design.switches) {
      put(this.names, sw.id.toLowerCase(), sw);
      put(this.macs, sw.mac, sw);
    }
    for (const host of design.hosts) {
      put(this.hostNames, (host.name ?? host.id).toLowerCase(), host);
      put(this.hostMacs, host.mac, host);
    }
    for (const { id, a, b } of design.links) {
      for (const [near, far] of [
        [a, b],
        [b, a],
      ] as const) {
        const there = this.byId.get(far.switch);
        this.drawn.set(keyOf(near), {
          text: `${there ? nameOf(there) : far.switch} port ${far.port}`,
          link: id,
          host: null,
          far,
        });
      }
    }
    for (const host of design.hosts)
      for (const end of host.attach)
        this.drawn.set(keyOf(end), { text: host.name ?? host.id, link: null, host, far: null });
  }

  /** By name or id; a name with a domain behind it (`ridge-a.example`) means the same switch. */
  switchCalled(name: string): Switch | null {
    const whole = name.toLowerCase();
    return this.names.get(whole) ?? this.names.get(whole.split('.')[0]!) ?? null;
  }
  switchFor(seen: Observed): Switch | null {
    return (
      this.switchCalled(seen.device) ??
      this.macs.get(seen.mac ?? '') ??
      this.macs.get(seen.device.toLowerCase()) ??
      null
    );
  }
  hostFor(seen: Observed): Host | null {
    return this.hostNames.get(seen.device.toLowerCase()) ?? this.hostMacs.get(seen.mac ?? '') ?? null;
  }
  /** By label, else by the number at the end of what the device calls it, where that is one port's alone. */
  portCalled(sw: Switch, name: string): Port | null {
    const exact = sw.ports.find((port) => port.id.toLowerCase() === name.toLowerCase());
    if (exact) return exact;
    const number = /(\d+)$/.exec(name)?.[1];
    const numbered =
      number === undefined || /[^\s\w-]/.test(name)
        ? []
        : sw.ports.filter(
            (port) => port.id === number || (port.number === Number(number) && /(\d+)$/.exec(port.id)?.[1] === number),
          );
    return numbered.length === 1 ? numbered[0]! : null;
  }
  portAt(end: LinkEnd): Port | undefined {
    return this.byId.get(end.switch)?.ports.find((port) => port.id === end.port);
  }
  drawnAt(end: LinkEnd): Drawn | null {
    return this.drawn.get(keyOf(end)) ?? null;
  }
  hasMac(mac: string): boolean {
    return this.macs.has(mac) || this.hostMacs.has(mac);
  }
}
