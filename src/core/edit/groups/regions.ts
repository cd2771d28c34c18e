import type { Draft } from 'immer';
import { z } from '../../base/zod';
import { regionSchema, type Design, type RegionSettings } from '../../model/document';
import { nodeOf, type GroupNode } from '../../model/field';
import { treeInstance, type TreeId } from '../../model/ids';
import { mstid, vlanSetText } from '../../model/legal';
import { vlanSet } from '../../model/vlanSet';
import { command } from '../command';
import { assign, copyOf, find, findRegion, withTrees } from '../draft';
import { did, say } from '../phrase';
import { applySettings, settingsOf, settingsText } from '../settings';
import { regionId } from './ids';

const node = nodeOf(regionSchema) as GroupNode;

export const regionCommands = [
  command(
    'add-region',
    { region: regionSchema },
    {
      apply: (draft, { region }) => void draft.regions.push(copyOf(region)),
      say: (_, { region }) => did('added', 'region settings ', region.name || region.id),
      learn: ({ things }, { region }) => void things.regions.set(region.id, region),
    },
  ),
  command(
    'set-region',
    { region: regionId, ...settingsOf(regionSchema.omit({ id: true }).shape) },
    {
      apply(draft, { region: id, ...settings }) {
        applySettings(node, findRegion(draft, id), settings);
        forgetInstances(draft);
      },
      say: ({ things, names }, { region: id, ...settings }) =>
        say('region ', names.region(id), `: ${settingsText(node, things.regions.get(id), settings, names)}`),
    },
  ),
  /** Lays VLANs onto an instance, made where it is not there; 0 is the IST. They leave the instance that they were in. */
  command(
    'map-vlans',
    { region: regionId, vlans: vlanSetText, instance: z.union([z.literal(0), mstid]) },
    {
      apply: (draft, { region, vlans, instance }) => mapVlans(findRegion(draft, region), vlans, instance),
      say: ({ names }, { region, vlans, instance }) =>
        say(
          'region ',
          names.region(region),
          `: VLANs ${vlans} to ${instance === 0 ? 'the IST' : `instance ${instance}`}`,
        ),
    },
  ),
  /** Its VLANs go to the IST. */
  command(
    'remove-instance',
    { region: regionId, instance: mstid },
    {
      apply(draft, { region: id, instance }) {
        const region = findRegion(draft, id);
        find(region.instances, (each) => each.id === instance, `instance ${instance} of ${id}`);
        region.instances = region.instances.filter((each) => each.id !== instance);
        forgetInstances(draft);
      },
      say: ({ names }, { region, instance }) =>
        say('region ', names.region(region), `: instance ${instance} removed, its VLANs to the IST`),
    },
  ),
  /** Its switches become regions of their own. */
  command(
    'remove-region',
    { region: regionId },
    {
      apply(draft, { region: id }) {
        findRegion(draft, id);
        draft.regions = draft.regions.filter((region) => region.id !== id);
        for (const sw of draft.switches) if (sw.region === id) delete sw.region;
        forgetInstances(draft);
      },
      say: ({ names }, { region }) => did('removed', 'region settings ', names.region(region)),
    },
  ),
] as const;

/** Moves VLANs to an instance, 0 being the IST; instances that lose their last VLAN stay. */
function mapVlans(region: Draft<RegionSettings>, text: string, instance: number): void {
  const moved = vlanSet(text);
  for (const each of region.instances) {
    const own = vlanSet(each.vlans);
    const left = each.id === instance ? own.union(moved) : own.intersect(own.differenceBothWays(moved));
    assign(each, 'vlans', left.format());
  }
  if (instance === 0 || region.instances.some(({ id }) => id === instance)) return;
  region.instances.push({ id: instance, vlans: moved.format() });
  region.instances.sort((a, b) => a.id - b.id);
}

/** What was set for instances that no region has any more goes with them. */
function forgetInstances(draft: Draft<Design>): void {
  const kept = new Set(draft.regions.flatMap((region) => region.instances.map(({ id }) => id)));
  for (const { trees } of withTrees(draft))
    for (const tree of Object.keys(trees) as TreeId[])
      if ((treeInstance(tree) ?? 0) > 0 && !kept.has(treeInstance(tree)!)) delete trees[tree];
}
