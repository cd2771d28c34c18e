/** A design on its way: what has been drawn so far, and who of it an observed switch is. */
import { FreshNames } from '../../../edit/fresh';
import type { BundleId, HostId, LinkId, PortId, RegionId, SwitchId } from '../../../model/ids';
import { FORMAT, designSchema, type LinkEnd } from '../../../model/document';
import type { Observation, ObservedSwitch } from '../observation';

/** What a schema reads: everything that is not said is as it usually is. */
export interface DrawnPort {
  readonly id: PortId;
  readonly number: number;
  readonly [more: string]: unknown;
}
export interface DrawnSwitch {
  readonly id: SwitchId;
  readonly mac: string;
  readonly ports: DrawnPort[];
  readonly [more: string]: unknown;
}
export interface DrawnLink {
  readonly id: LinkId;
  readonly a: LinkEnd;
  readonly b: LinkEnd;
}
export interface DrawnHost {
  readonly id: HostId;
  readonly attach: LinkEnd[];
  readonly [more: string]: unknown;
}
export interface DrawnBundle {
  readonly id: BundleId;
  readonly switch: SwitchId;
  readonly ports: readonly PortId[];
  readonly [more: string]: unknown;
}
export interface DrawnRegion {
  readonly id: RegionId;
  readonly [more: string]: unknown;
}

/** Where an observed switch was drawn. */
export interface Whereabouts {
  readonly sw: DrawnSwitch;
  /** By the number of an observed port. */
  readonly ports: ReadonlyMap<number, DrawnPort>;
}

export class Drawing {
  readonly switches: DrawnSwitch[] = [];
  readonly links: DrawnLink[] = [];
  readonly hosts: DrawnHost[] = [];
  readonly bundles: DrawnBundle[] = [];
  readonly regions: DrawnRegion[] = [];
  readonly doubts: string[] = [];
  readonly fresh = new FreshNames(
    designSchema.parse({ format: FORMAT.name, version: FORMAT.version, name: 'new', switches: [], links: [] }),
  );
  readonly at = new Map<ObservedSwitch, Whereabouts>();
  readonly observation: Observation;
  private readonly macs = new Set<string>();

  constructor(observation: Observation) {
    this.observation = observation;
    for (const { mac, chassis } of observation.switches)
      for (const each of [mac, chassis]) if (each !== null) this.macs.add(each);
  }

  /** Puts a switch in its own place. */
  put(sw: DrawnSwitch): void {
    this.switches[this.switches.findIndex(({ id }) => id === sw.id)] = sw;
  }
  putBundle(bundle: DrawnBundle): void {
    this.bundles[this.bundles.findIndex(({ id }) => id === bundle.id)] = bundle;
  }

  doubt(sentence: string): void {
    if (!this.doubts.includes(sentence)) this.doubts.push(sentence);
  }

  /** An address that nobody in the network has. */
  freshMac(): string {
    for (;;) {
      const mac = this.fresh.mac();
      if (this.macs.has(mac)) continue;
      this.macs.add(mac);
      return mac;
    }
  }
}
