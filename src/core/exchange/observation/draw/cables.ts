/** Cables and hosts by what switches tell of their neighbours, seen from both ends where both were read. */
import { isTitle, type LinkEnd } from '../../../model/document';
import type { PortId } from '../../../model/ids';
import { macAddress } from '../../../model/legal';
import type { ObservedNeighbour, ObservedSwitch } from '../observation';
import type { Drawing, DrawnHost, DrawnPort, DrawnSwitch } from './drawing';

/** One end that tells whom it sees. */
interface Seen {
  readonly sw: ObservedSwitch;
  readonly neighbour: ObservedNeighbour;
  readonly end: LinkEnd;
}

export function cablesOf(drawing: Drawing): void {
  new CableDrawer(drawing).draw();
}

class CableDrawer {
  private readonly drawing: Drawing;
  private readonly byMac = new Map<string, ObservedSwitch[]>();
  private readonly byName = new Map<string, ObservedSwitch[]>();
  private readonly taken = new Set<string>();
  /** Those who were told of and not read, by their chassis. */
  private readonly strangers = new Map<string, DrawnSwitch>();
  private readonly hosts = new Map<string, DrawnHost>();

  constructor(drawing: Drawing) {
    this.drawing = drawing;
    for (const sw of drawing.observation.switches) {
      for (const each of new Set([sw.mac, sw.chassis]))
        if (each !== null) this.byMac.set(each, [...(this.byMac.get(each) ?? []), sw]);
      if (sw.name !== '') this.byName.set(sw.name, [...(this.byName.get(sw.name) ?? []), sw]);
    }
  }

  draw(): void {
    const { drawing } = this;
    const seen = drawing.observation.switches.flatMap((sw) => {
      const at = drawing.at.get(sw)!;
      return sw.neighbours.flatMap((neighbour): Seen[] => {
        const port = at.ports.get(neighbour.port);
        if (port) return [{ sw, neighbour, end: { switch: at.sw.id, port: port.id } }];
        drawing.doubt(
          `${sw.name || sw.source}: it sees ${whom(neighbour)} at a port ${neighbour.port} that it does not tell of.`,
        );
        return [];
      });
    });
    const ends = new Map(seen.map((each) => [keyOf(each.end), this.farEnd(each)]));
    // What both ends say comes first: of two that are seen at one port, one is true.
    const isMutual = ({ end }: Seen): boolean => {
      const far = ends.get(keyOf(end));
      const back = far && ends.get(keyOf(far));
      return back !== undefined && back !== null && keyOf(back) === keyOf(end);
    };
    for (const each of seen.filter(isMutual)) this.link(each.end, ends.get(keyOf(each.end))!);
    for (const each of seen) if (!isMutual(each)) this.oneSided(each, ends.get(keyOf(each.end)) ?? null);
    this.bundleCards();
  }

  private of({ chassis, system }: ObservedNeighbour): ObservedSwitch | null {
    const byMac = this.byMac.get(chassis) ?? [];
    const own = byMac.length > 1 ? byMac.filter((sw) => sw.chassis === chassis || sw.name === system) : byMac;
    if (own.length === 1) return own[0]!;
    const named = system === null ? [] : (this.byName.get(system) ?? []);
    return named.length === 1 ? named[0]! : null;
  }

  /** The end that a neighbour is seen by, where it was read. */
  private farEnd({ neighbour }: Seen): LinkEnd | null {
    const far = this.of(neighbour);
    if (!far) return null;
    const { portId } = neighbour;
    const at = this.drawing.at.get(far)!;
    const port =
      far.ports.find((each) => each.interface === portId || each.mac === portId) ??
      far.ports.find((each) => each.alias !== '' && each.alias === portId);
    const drawn = port && at.ports.get(port.number);
    return drawn ? { switch: at.sw.id, port: drawn.id } : null;
  }

  private oneSided({ sw, neighbour, end }: Seen, far: LinkEnd | null): void {
    const { drawing } = this;
    const name = sw.name || sw.source;
    if (this.taken.has(keyOf(end))) {
      if (!far || !this.taken.has(keyOf(far)))
        drawing.doubt(`${name} port ${end.port}: it also sees ${whom(neighbour)}, which was not drawn.`);
      return;
    }
    if (far) {
      if (this.taken.has(keyOf(far)) || keyOf(far) === keyOf(end)) {
        drawing.doubt(`${name} port ${end.port}: it sees ${whom(neighbour)}, where another cable is.`);
        return;
      }
      drawing.doubt(`${name} port ${end.port}: it alone tells of the cable to ${whom(neighbour)}.`);
      this.link(end, far);
      return;
    }
    if (this.of(neighbour)) {
      drawing.doubt(`${name} port ${end.port}: it sees ${whom(neighbour)}, which tells of no such port.`);
      return;
    }
    if (neighbour.kind === 'host' || (neighbour.kind === null && this.seenBy(neighbour) === 1))
      this.host(sw, neighbour, end);
    else this.link(end, this.atStranger(neighbour));
  }

  private seenBy({ chassis }: ObservedNeighbour): number {
    return this.drawing.observation.switches.reduce(
      (sum, { neighbours }) => sum + neighbours.filter((each) => each.chassis === chassis).length,
      0,
    );
  }

  private link(a: LinkEnd, b: LinkEnd): void {
    if (keyOf(a) === keyOf(b) || this.taken.has(keyOf(a)) || this.taken.has(keyOf(b))) return;
    this.taken.add(keyOf(a));
    this.taken.add(keyOf(b));
    this.drawing.links.push({ id: this.drawing.fresh.linkId(), a, b });
  }

  /** A port of a switch that was not read. */
  private atStranger(neighbour: ObservedNeighbour): LinkEnd {
    const { drawing } = this;
    let sw = this.strangers.get(neighbour.chassis);
    if (!sw) {
      const name = neighbour.system ?? neighbour.chassis;
      const mac = macAddress.safeParse(neighbour.chassis);
      sw = {
        id: drawing.fresh.switchId(name),
        name: isTitle(name) ? name : neighbour.chassis,
        mac: mac.success ? mac.data : drawing.freshMac(),
        ports: [],
      };
      this.strangers.set(neighbour.chassis, sw);
      drawing.switches.push(sw);
      drawing.doubt(`${name}: it was not read; it was drawn with usual settings, and the ports that others see.`);
    }
    const port: DrawnPort = { id: String(sw.ports.length + 1) as PortId, number: sw.ports.length + 1 };
    sw.ports.push(port);
    return { switch: sw.id, port: port.id };
  }

  /** A host all of whose cards are on members of bundles has one itself; how it negotiates is seen from there. */
  private bundleCards(): void {
    const { bundles, hosts } = this.drawing;
    const of = new Map(bundles.flatMap((bundle) => bundle.ports.map((port) => [`${bundle.switch}\n${port}`, bundle])));
    hosts.forEach((host, i) => {
      const ends = host.attach.map((end) => of.get(keyOf(end)));
      if (ends.some((bundle) => bundle === undefined)) return;
      hosts[i] = { ...host, bundle: { mode: ends[0]!.mode === 'static' ? 'static' : 'active' } };
    });
  }

  private host(sw: ObservedSwitch, neighbour: ObservedNeighbour, end: LinkEnd): void {
    const { drawing } = this;
    this.taken.add(keyOf(end));
    const known = this.hosts.get(neighbour.chassis);
    if (known) {
      known.attach.push(end);
      return;
    }
    const name = neighbour.system ?? neighbour.chassis;
    const mac = macAddress.safeParse(neighbour.chassis);
    const untagged = sw.ports.find(({ number }) => number === neighbour.port)?.vlans?.untagged;
    const host: DrawnHost = {
      id: drawing.fresh.hostId(name),
      ...(isTitle(name) ? { name } : {}),
      mac: mac.success ? mac.data : drawing.freshMac(),
      ...(untagged === null || untagged === undefined ? {} : { vlan: untagged }),
      attach: [end],
    };
    this.hosts.set(neighbour.chassis, host);
    drawing.hosts.push(host);
  }
}

const keyOf = (end: LinkEnd): string => `${end.switch}\n${end.port}`;
const whom = ({ system, chassis, portId }: ObservedNeighbour): string => `${system ?? chassis} ${portId}`;
