/** The same network with other dialects: what the trees would be if every bridge spoke one, its settings taken over as far as they mean something there. */
import type { Bridge } from '../../topology/bridges';
import { isMultiple, passesOn, runsTrees, traitsOf } from '../../model/document';
import type { Command } from '../../edit/commands';
import { editAll } from '../../edit/edit';
import {
  CIST,
  CST,
  instanceTree,
  treeVlan,
  vlanTree,
  type RegionId,
  type SwitchId,
  type TreeId,
} from '../../model/ids';
import {
  regionSchema,
  type Bundle,
  type Design,
  type Dialect,
  type Port,
  type RegionSettings,
} from '../../model/document';
import { VlanSet } from '../../model/vlanSet';
import { settingKey } from '../../topology/bridgeId';
import { solve } from '../../tree/solve';
import { instanceOf, regionsInUse } from './mapping';
import { setAlike } from '../shapes';

/** Ports speak as their switches do; those that pass BPDUs on go on with that. */
function asSwitchesSpeak(design: Design): Design {
  const asSwitch = <T extends Port | Bundle>(port: T): T => {
    if (port.speaks === undefined || passesOn(port)) return port;
    const { speaks: _, speaksFor: __, ...plain } = port;
    return plain as T;
  };
  return {
    ...design,
    switches: design.switches.map((sw) => ({ ...sw, ports: sw.ports.map(asSwitch) })),
    bundles: design.bundles.map(asSwitch),
  };
}

/** The same network with every bridge speaking one dialect; one that runs none stays as it is. */
export function spokenAs(design: Design, dialect: Dialect): Design {
  const { trees } = traitsOf(dialect);
  switch (trees) {
    case 'one':
      return asOneTree(design, dialect);
    case 'vlan':
      return asPerVlan(design, dialect);
    case 'region':
      return asInstances(design);
    case 'none':
      return design;
  }
}

/** One tree for all VLANs: of MSTP bridges the CIST's settings count. */
export function asOneTree(design: Design, dialect: Dialect): Design {
  return inDialect(design, dialect, (trees, sw) =>
    isMultiple(sw) && trees[CIST] ? { ...trees, [CST]: trees[CIST] } : trees,
  );
}

/** A tree for each VLAN: of MSTP bridges set as the instance that has the VLAN. */
export function asPerVlan(design: Design, dialect: Dialect): Design {
  return inDialect(design, dialect, (trees, sw) => {
    if (!isMultiple(sw)) return trees;
    const instances = design.regions.find((region) => region.id === sw.region)?.instances ?? [];
    const own = [1, ...design.vlans.map((vlan) => vlan.id)].flatMap((vid) => {
      const set = trees[instanceTree(instanceOf(instances, vid))];
      return set ? [[vlanTree(vid), set] as const] : [];
    });
    return { ...trees, ...Object.fromEntries(own) };
  });
}

function inDialect(
  given: Design,
  dialect: Dialect,
  turned: <T>(trees: Partial<Record<TreeId, T>>, sw: Bridge) => Partial<Record<TreeId, T>>,
): Design {
  const design = asSwitchesSpeak(given);
  return {
    ...design,
    switches: design.switches.map((sw) =>
      runsTrees(sw)
        ? {
            ...sw,
            dialect,
            trees: turned(sw.trees, sw),
            ports: sw.ports.map((port) => ({ ...port, trees: turned(port.trees, sw) })),
          }
        : sw,
    ),
    bundles: design.bundles.map((bundle) => {
      const sw = design.switches.find((each) => each.id === bundle.switch);
      return sw && runsTrees(sw) ? { ...bundle, trees: turned(bundle.trees, sw) } : bundle;
    }),
  };
}

/** MST instances: those of the region that most bridges are in; where none speaks MSTP, one for each way in which VLANs' trees are set. */
export function asInstances(given: Design): Design {
  const design = asSwitchesSpeak(given);
  const commands =
    regionsInUse(design).length > 0
      ? joining(
          design,
          mainRegion(design)!.id,
          design.switches.filter(runsTrees).map((sw) => sw.id),
        )
      : keepingTrees(design).commands;
  const edited = editAll(design, commands);
  return edited.ok ? edited.value.design : design;
}

/** The region settings that most MSTP bridges have; null where none has any. */
export function mainRegion(design: Design): RegionSettings | null {
  const users = (region: RegionSettings): number =>
    design.switches.filter((sw) => isMultiple(sw) && sw.region === region.id).length;
  return [...regionsInUse(design)].sort((a, b) => users(b) - users(a))[0] ?? null;
}

/** Commands that make bridges speak MSTP with the settings of a region; nothing where they do. */
export const joining = (design: Design, region: RegionId, ids: readonly SwitchId[]): Command[] =>
  design.switches.flatMap((sw): Command[] =>
    !ids.includes(sw.id) || (isMultiple(sw) && sw.region === region)
      ? []
      : [{ do: 'set-switch', switch: sw.id, ...(isMultiple(sw) ? {} : { dialect: 'mstp' as const }), region }],
  );

/** Settings for a region that the design does not have yet, named after it. */
export function freshRegion(design: Design, instances: RegionSettings['instances']): RegionSettings {
  const taken = new Set(design.regions.map((region) => region.id as string));
  let n = 1;
  while (taken.has(`region-${n}`)) n += 1;
  const name =
    design.name
      .normalize('NFKD')
      .replace(/[^A-Za-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .toUpperCase()
      .slice(0, 32) || 'REGION';
  return regionSchema.parse({ id: `region-${n}`, name, revision: 1, instances });
}

export interface Keeping {
  readonly instances: RegionSettings['instances'];
  readonly commands: readonly Command[];
}

/**
 * Every bridge into one new region, with an instance for each way in which trees of VLANs are set, and its settings in
 * them; VLAN 1 and what is set like it alone stay in the IST.
 */
export function keepingTrees(design: Design): Keeping {
  const { trees: solved } = solve(asPerVlan(design, 'per-vlan-rstp'));
  const trees = solved.filter((tree) => treeVlan(tree.id) !== null);
  const shapes = setAlike(trees).map((alike) => alike.map((tree) => tree.id));
  const groups =
    shapes.length < 2
      ? []
      : shapes.map((ids) => ids.filter((id) => id !== vlanTree(1))).filter((ids) => ids.length > 0);
  const instances = groups.map((ids, i) => ({
    id: i + 1,
    vlans: VlanSet.of(ids.map((id) => [treeVlan(id)!, treeVlan(id)!])).format(),
  }));
  const region = freshRegion(design, instances);
  const like: readonly (readonly [TreeId, TreeId])[] = [
    [CIST, vlanTree(1)],
    ...groups.map((ids, i): [TreeId, TreeId] => [instanceTree(i + 1), ids[0]!]),
  ];
  const commands = design.switches
    .filter((sw) => runsTrees(sw) && !isMultiple(sw))
    .flatMap((sw): Command[] =>
      like.flatMap(([tree, of]): Command[] => {
        const key = settingKey(of, sw.dialect);
        const at = sw.trees[key]?.priority;
        const bundles = design.bundles.filter((bundle) => bundle.switch === sw.id);
        return [
          ...(at === undefined ? [] : [{ do: 'set-bridge-priority' as const, switch: sw.id, tree, priority: at }]),
          ...[...sw.ports, ...bundles].flatMap(({ id, trees: set }): Command[] => {
            const own = set[key];
            const port = id as (typeof sw.ports)[0]['id'];
            return [
              ...(own?.cost === undefined
                ? []
                : [{ do: 'set-port-cost' as const, switch: sw.id, port, tree, cost: own.cost }]),
              ...(own?.priority === undefined
                ? []
                : [{ do: 'set-port-priority' as const, switch: sw.id, port, tree, priority: own.priority }]),
            ];
          }),
        ];
      }),
    );
  const bridges = design.switches.filter(runsTrees).map((sw) => sw.id);
  return { instances, commands: [{ do: 'add-region', region }, ...commands, ...joining(design, region.id, bridges)] };
}
