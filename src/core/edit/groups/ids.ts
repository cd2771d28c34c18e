/** Identifiers as commands name things: whether they are there is found out when the command is done. */
import { z } from '../../base/zod';
import { treeId as anyTree } from '../../model/common';
import type {
  BridgePortId,
  BundleId,
  GroupId,
  HostId,
  LinkId,
  PortId,
  RegionId,
  SwitchId,
  TreeId,
} from '../../model/ids';

const named = <T extends string>() => z.string().transform((id) => id as T);
export const switchId = named<SwitchId>();
export const portId = named<PortId>();
/** A port, or a bundle by its id. */
export const bridgePortId = named<BridgePortId>();
export const linkId = named<LinkId>();
export const bundleId = named<BundleId>();
export const groupId = named<GroupId>();
export const regionId = named<RegionId>();
export const hostId = named<HostId>();
/** Null: every tree, unless a tree says otherwise. */
export const treeOrAll = anyTree.transform((id) => id as TreeId).nullable();
