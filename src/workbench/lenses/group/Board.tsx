'use client';
/** The board: VLANs assigned to instances by dragging, by ranges or by a rule, with root and standby of each; ways to group them proposed. */
import { isMultiple } from '../../../core/model/document';
import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import { CIST, instanceTree, type RegionId } from '../../../core/model/ids';
import { namesOf } from '../../../core/model/derive/names';
import { REGION, type Design, type RegionSettings } from '../../../core/model/document';
import { VlanSet, vlanSet } from '../../../core/model/vlanSet';
import { mainRegion } from '../../../core/analysis/regions/asDialect';
import { dealVlans, instancesFor, type DealRule } from '../../../core/analysis/regions/grouping';
import { keepingUnlisted, listedVlans, regionsInUse, vlansIn } from '../../../core/analysis/regions/mapping';
import { TextButton } from '../../ui/TextButton';
import * as read from '../../ui/read';
import { useFollowing, useWorkbench } from '../../state/context';
import { counted } from '../../../core/base/words';
import styles from '../shared/group.module.css';
import { InstanceColumn, type VlanTag } from './InstanceColumn';
import { ProposeGroupings } from './ProposeGroupings';
import { useRegions } from '../../state/useRegions';
import { Select } from '../../ui/Select';
import { RULE_CHOICES } from '../../ui/words/choices';

export function Board() {
  // The map comes first after an edit.
  const design = useFollowing((state) => state.design);
  const [chosen, setChosen] = useState<RegionId | null>(null);
  const used = regionsInUse(design);
  const region = used.find((each) => each.id === chosen) ?? mainRegion(design);
  return (
    <div className={styles.boardRoom}>
      {region ? (
        <RegionBoard key={region.id} design={design} region={region} used={used} choose={setChosen} />
      ) : (
        <NoRegion design={design} />
      )}
      <ProposeGroupings />
    </div>
  );
}

function NoRegion({ design }: { readonly design: Design }) {
  const multiple = design.switches.filter((sw) => isMultiple(sw)).length;
  return (
    <section className={styles.board} aria-label="Board">
      <h3>No region yet</h3>
      <p className={styles.lead}>
        {multiple > 0
          ? `${counted(multiple, 'switch runs', 'switches run')} MSTP, each a region of its own with every VLAN in the IST.`
          : 'No switch runs MSTP yet: every VLAN has a tree of its own, or all share one.'}{' '}
        Have a grouping proposed from the loads and the topology, or select switches and give them a region under Region
        in the inspector. “Migration” then plans the way there, switch by switch.
      </p>
    </section>
  );
}

function tagsOf(design: Design, vids: Iterable<number>): VlanTag[] {
  const listed = new Map(design.vlans.map((vlan) => [vlan.id, vlan]));
  return [...vids].map((id) => ({
    id,
    name: listed.get(id)?.name ?? (id === 1 ? 'default' : ''),
    load: listed.get(id)?.load ?? null,
  }));
}

interface BoardProps {
  readonly design: Design;
  readonly region: RegionSettings;
  readonly used: readonly RegionSettings[];
  readonly choose: (id: RegionId) => void;
}

function RegionBoard({ design, region, used, choose }: BoardProps) {
  const solution = useFollowing((state) => state.solution);
  const act = useWorkbench((state) => state.act);
  const regions = useRegions();
  const [text, setText] = useState('');
  const [onto, setOnto] = useState('');
  const [rule, setRule] = useState<DealRule>('load');
  const [fault, setFault] = useState<string | null>(null);
  const listed = useMemo(() => listedVlans(design), [design]);
  const parsed = read.vlans(text);
  const picked = new Set(parsed.ok ? listed.filter((vid) => vlanSet(parsed.value).has(vid)) : []);
  const own = useMemo(
    () => design.switches.filter((sw) => sw.up && isMultiple(sw) && sw.region === region.id).map((sw) => sw.id),
    [design, region.id],
  );
  const switches = useMemo(
    () => regions.find((each) => each.switches.includes(own[0]!))?.pieces.flat() ?? own,
    [regions, own],
  );
  const ids = [0, ...region.instances.map(({ id }) => id)];
  const free = Array.from({ length: REGION.instances + 1 }, (_, i) => i + 1).find((id) => !ids.includes(id))!;
  const target = ids.includes(Number(onto)) && onto !== '' ? Number(onto) : (region.instances[0]?.id ?? free);
  const lay = (vlans: string, mstid: number): void => {
    const refused = act({ do: 'map-vlans', region: region.id, vlans, instance: mstid });
    setFault(refused);
    if (refused === null) setText('');
  };
  const deal = (): void => {
    const kept = region.instances.map(({ id }) => id);
    const places = rule === 'parity' ? 2 : Math.max(2, kept.length);
    const dealt = instancesFor(
      dealVlans(
        design,
        listed.filter((vid) => vid !== 1),
        places,
        rule,
      ),
    ).map((instance, i) => ({ ...instance, id: kept[i] ?? Math.max(0, ...kept) + 1 + i - kept.length }));
    setFault(
      act({
        do: 'set-region',
        region: region.id,
        instances: keepingUnlisted(design, region.instances, [
          ...dealt,
          ...region.instances.slice(places).map(({ id }) => ({ id, vlans: '' })),
        ]),
      }),
    );
  };
  return (
    <section className={styles.board} aria-label="Board">
      <div className={styles.line}>
        {used.length > 1 ? (
          <label>
            VLAN map of{' '}
            <Select
              label="Region settings on the board"
              value={region.id}
              options={used.map((each) => [each.id, namesOf(design).region(each.id)])}
              choose={choose}
            />
          </label>
        ) : (
          <b>{namesOf(design).region(region.id)}</b>
        )}
        <span className={styles.soft}>
          revision {region.revision}, {counted(own.length, 'switch has', 'switches have')} this VLAN map
        </span>
        <span className={styles.push}>
          by <Select label="Rule" value={rule} options={RULE_CHOICES} choose={setRule} />{' '}
          <Button size="small" variant="outlined" onClick={deal}>
            Assign all VLANs
          </Button>
        </span>
      </div>
      <div className={styles.columns}>
        {ids.map((mstid) => {
          const vlans = vlansIn(design, region.instances, mstid);
          const on = listed.filter((vid) => vlans.has(vid));
          const rest = vlans.differenceBothWays(VlanSet.of(on.map((vid) => [vid, vid]))).format();
          return (
            <InstanceColumn
              key={mstid}
              solution={solution}
              tree={mstid === 0 ? CIST : instanceTree(mstid)}
              tags={tagsOf(design, on)}
              unlisted={mstid === 0 ? '' : rest}
              switches={switches}
              picked={picked}
              onPick={(vid) =>
                setText(
                  VlanSet.of(
                    [...(picked.has(vid) ? [...picked].filter((each) => each !== vid) : [...picked, vid])].map(
                      (each) => [each, each],
                    ),
                  ).format(),
                )
              }
              onLay={(laid) => lay(laid, mstid)}
              onRemove={
                mstid === 0 ? null : () => setFault(act({ do: 'remove-instance', region: region.id, instance: mstid }))
              }
            />
          );
        })}
      </div>
      <form
        className={styles.line}
        onSubmit={(event) => {
          event.preventDefault();
          if (!parsed.ok) setFault(parsed.error.message);
          else if (parsed.value === '') setFault('Pick VLANs, or write some: 15,25-29.');
          else lay(parsed.value, target);
        }}
      >
        <label>
          VLANs{' '}
          <input
            className={styles.input}
            value={text}
            placeholder="15,25-29"
            aria-label="VLANs to assign"
            aria-invalid={!parsed.ok}
            onChange={(event) => {
              setText(event.target.value);
              setFault(null);
            }}
          />
        </label>
        <label>
          to{' '}
          <Select
            label="Instance to assign them to"
            value={String(target)}
            options={[
              ...ids.map((id) => [String(id), id === 0 ? 'the IST' : `instance ${id}`] as const),
              ...(ids.includes(target) ? [] : [[String(target), `instance ${target}, new`] as const]),
            ]}
            choose={setOnto}
          />
        </label>
        <Button type="submit" size="small" variant="outlined">
          Assign
        </Button>
        {region.instances.length < REGION.instances ? (
          <TextButton
            does="edit"
            onClick={() => (parsed.ok ? lay(parsed.value, free) : setFault(parsed.error.message))}
          >
            to a new instance {free}
          </TextButton>
        ) : (
          <span className={styles.soft}>{REGION.instances} instances: a region has no more beside the IST</span>
        )}
      </form>
      {(fault ?? (parsed.ok ? null : parsed.error.message)) && (
        <p className={styles.fault} role="alert">
          {fault ?? (parsed.ok ? '' : parsed.error.message)}
        </p>
      )}
    </section>
  );
}
