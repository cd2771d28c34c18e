/** The bundles of a running network: LACP on every end that negotiates, signal alone on static ones. */
import { comparePorts } from '../../modes/lacp/selectionLogic';
import { bundlesOf, initiates, negotiationOf, type BundleEnd, type Bundles } from '../../topology/lag/ends';
import type { BundleId, BridgePortId, SwitchId } from '../../model/ids';
import type { Design } from '../../model/document';
import type { Micros } from '../../modes/entity';
import { LacpEntity, type LacpView } from '../../modes/lacp/entity';
import type { Lacpdu, MemberState } from '../../modes/lacp/state';
import type { MemberUse } from '../../topology/aggregated';
import { compileNetwork, type Network } from '../../topology/network';

/** A network before any bundle has negotiated: members that are `absent` as yet are single ports; itself where none is. */
export const withAbsent = (network: Network, absent: readonly number[]): Network =>
  absent.length === 0
    ? network
    : compileNetwork(
        network.design,
        network.bundles.members.map((_, m) => (absent.includes(m) ? 'apart' : 'out')),
      );

/** How a member stands; of a static one only its state. */
export interface MemberNow {
  readonly state: MemberState;
  readonly lacp: LacpView | null;
}

export interface AggregationSurroundings {
  /** An end negotiates by itself elsewhere: what it does is not known here, but by its LACPDUs. */
  readonly isOutside: (end: BundleEnd) => boolean;
  readonly now: () => Micros;
  /** An LACPDU goes out of a member. */
  readonly transmit: (member: number, lacpdu: Lacpdu) => void;
  /** An end wants to be woken at a moment. */
  readonly wakeAt: (t: Micros, end: number) => void;
  /** Something of a member is otherwise than before; `turned`: its state is. */
  readonly changed: (member: number, now: MemberNow, turned: boolean) => void;
}

export class Aggregation {
  bundles: Bundles;
  /** Ends whose members are used otherwise since these were cleared. */
  readonly moved = new Set<number>();
  private readonly entities: (LacpEntity | null)[];
  private readonly wakes: Micros[];
  /** Members that are single ports as yet, or again. */
  private readonly absent: Set<number>;
  private readonly known: { readonly state: MemberState | null; readonly text: string }[];

  private design: Design;
  private readonly around: AggregationSurroundings;

  constructor(design: Design, absent: readonly number[], around: AggregationSurroundings) {
    this.design = design;
    this.around = around;

    this.bundles = bundlesOf(design);
    this.absent = new Set(absent);
    this.entities = this.bundles.ends.map(() => null);
    this.wakes = this.bundles.ends.map(() => Infinity);
    this.known = this.bundles.members.map(() => ({ state: null, text: '' }));
  }

  /** Power comes on everywhere. */
  boot(): void {
    for (const end of this.bundles.ends) this.begin(end);
    this.look();
  }

  /** Goes over to another state of the design: signal, settings, power. The bundles must be the same ones. */
  follow(design: Design): void {
    const before = this.bundles;
    const power = (of: Design, { owner }: BundleEnd): boolean =>
      owner.kind === 'host' || of.switches.find((sw) => sw.id === owner.switch)!.up;
    this.bundles = bundlesOf(design);
    for (const end of this.bundles.ends) {
      const was = before.ends[end.index]!;
      const restarted = power(design, end) && !power(this.design, end);
      if (restarted || settingsText(end, this.bundles) !== settingsText(was, before)) this.begin(end);
    }
    this.design = design;
    this.look();
  }

  /** A bundle of a switch has these ports from now on; the others of its members are single ones, with none it is taken apart. */
  setPorts(id: BundleId, ports: readonly BridgePortId[]): void {
    const end = this.bundles.ends.find((each) => each.id === id && each.owner.kind === 'switch');
    if (!end) return;
    const was = this.stands(end);
    for (const m of end.members) {
      if (ports.includes(this.bundles.members[m]!.at.port)) this.absent.delete(m);
      else this.absent.add(m);
    }
    if (!was) this.begin(end);
    this.look();
  }

  /** Whether a bundle has any members now. */
  private stands(end: BundleEnd): boolean {
    return end.members.some((m) => !this.absent.has(m));
  }

  wake(end: number): void {
    const { now } = this.around;
    if (this.wakes[end] !== now()) return; // put off
    this.wakes[end] = Infinity;
    this.entities[end]?.wake();
    this.after(end);
  }

  /** An LACPDU comes to a member; the end may not understand it. */
  arrive(member: number, lacpdu: Lacpdu, from: number): void {
    const { members, ends } = this.bundles;
    const { end } = members[member]!;
    if (negotiationOf(ends[members[from]!.end]!.mode) !== negotiationOf(ends[end]!.mode)) return;
    this.entities[end]?.receive(this.placeOf(member), lacpdu);
    this.after(end);
    for (const other of ends)
      if (other.mac === ends[end]!.mac && this.entities[other.index]?.heardElsewhere(lacpdu.actor))
        this.after(other.index);
  }

  /** What each member is used for. */
  uses(): MemberUse[] {
    const uses: MemberUse[] = this.bundles.members.map(() => 'out');
    for (const end of this.bundles.ends) {
      const entity = this.entities[end.index];
      if (entity) end.members.forEach((m, place) => (uses[m] = entity.use(place)));
      else for (const m of this.staticMembers(end)) uses[m] = 'bundle';
      for (const m of end.members) if (this.absent.has(m)) uses[m] = 'apart';
    }
    return uses;
  }

  /** The switches of the ends in `moved`. */
  get movedOwners(): SwitchId[] {
    return [...this.moved].flatMap((end) => {
      const { owner } = this.bundles.ends[end]!;
      return owner.kind === 'switch' ? [owner.switch] : [];
    });
  }

  get resting(): boolean {
    return this.entities.every((entity) => entity === null || entity.resting);
  }

  /** How a member stands now. */
  memberNow(member: number): MemberNow {
    const at = this.bundles.members[member]!;
    const end = this.bundles.ends[at.end]!;
    const entity = this.entities[at.end];
    if (this.absent.has(member)) return { state: at.macOperational ? 'individual' : 'down', lacp: null };
    if (entity) {
      const lacp = entity.view(this.placeOf(member));
      return { state: lacp.state, lacp };
    }
    if (!at.macOperational) return { state: 'down', lacp: null };
    const active = this.staticMembers(end);
    return { state: active.includes(member) ? 'active' : active.length === 0 ? 'waiting' : 'standby', lacp: null };
  }

  private placeOf(member: number): number {
    return this.bundles.ends[this.bundles.members[member]!.end]!.members.indexOf(member);
  }

  /** A static end takes what has signal, the best ports first. */
  private staticMembers(end: BundleEnd): number[] {
    const { members } = this.bundles;
    const lit = end.members
      .filter((m) => members[m]!.macOperational && !this.absent.has(m))
      .sort((a, b) => comparePorts(members[a]!, members[b]!));
    return Math.min(lit.length, end.maxActive) < end.minLinks ? [] : lit.slice(0, end.maxActive);
  }

  /** As at BEGIN. */
  private begin(end: BundleEnd): void {
    this.moved.add(end.index);
    this.wakes[end.index] = Infinity;
    if (end.mode === 'static' || !this.stands(end) || this.around.isOutside(end)) {
      this.entities[end.index] = null;
      return;
    }
    const { systemPriority, mac, key, fast, minLinks, maxActive } = end;
    const ports = end.members.map((m) => this.bundles.members[m]!);
    const { transmit, now } = this.around;
    this.entities[end.index] = new LacpEntity(
      { systemPriority, mac, key, fast, minLinks, maxActive, active: initiates(end.mode), ports },
      {
        now,
        transmit: (port, lacpdu) => transmit(end.members[port]!, lacpdu),
        changed: () => this.moved.add(end.index),
      },
    );
  }

  /** Tells every end which members have signal. */
  private look(): void {
    const { ends, members } = this.bundles;
    for (const end of ends) {
      end.members.forEach((m, place) =>
        this.entities[end.index]?.enable(place, members[m]!.macOperational && !this.absent.has(m)),
      );
      this.after(end.index);
    }
  }

  private after(end: number): void {
    const due = this.entities[end]?.due ?? Infinity;
    if (due !== this.wakes[end] && due !== Infinity) {
      this.wakes[end] = due;
      this.around.wakeAt(due, end);
    }
    for (const m of this.bundles.ends[end]!.members) {
      const now = this.memberNow(m);
      const text = JSON.stringify(now);
      const before = this.known[m]!;
      if (text === before.text) continue;
      this.known[m] = { state: now.state, text };
      this.around.changed(m, now, now.state !== before.state);
    }
  }
}

/** Everything of an end that a new beginning follows from when it changes. */
const settingsText = (end: BundleEnd, { members }: Bundles): string =>
  JSON.stringify([
    end.mode,
    end.fast,
    end.key,
    end.minLinks,
    end.maxActive,
    end.systemPriority,
    end.mac,
    end.members.map((m) => [members[m]!.number, members[m]!.priority, members[m]!.key, members[m]!.speed]),
  ]);
