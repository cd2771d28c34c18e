/** What people call the things of a design: by name where there is one, else by id. */
import type { BridgePortId, BundleId, GroupId, HostId, LinkId, RegionId, SwitchId } from './ids';

export const nameOf = ({ name, id }: { readonly name?: string | undefined; readonly id: string }): string => name ?? id;

/** Names by id; of what is not there, the id. */
export interface Names {
  switch(id: SwitchId): string;
  /** `ridge-a port 1`, `ridge-a bundle Uplink`. */
  end(at: { readonly switch: SwitchId; readonly port: BridgePortId }): string;
  /** `ridge-a port 1 to ridge-b port 2`. */
  link(id: LinkId): string;
  host(id: HostId): string;
  /** `Uplink on ridge-a`. */
  bundle(id: BundleId): string;
  /** Undefined is no group. */
  group(id: GroupId | undefined): string;
  /** The name of a region's settings, with the id where several have it; undefined is a region of a switch's own. */
  region(id: RegionId | undefined): string;
}
