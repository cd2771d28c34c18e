'use client';
/** An instance on the board: its VLANs as tags that can be dragged to another one, its root and its standby. */
import { memo, useState } from 'react';
import { treeName, type SwitchId, type TreeId } from '../../../core/model/ids';
import { byChance } from '../../../core/analysis/roots/chance';
import { explainRoot, standbyRoot } from '../../../core/tree/explain/election';
import type { SettledTree, Solution } from '../../../core/tree/settled';
import { placeIn } from '../shared/placing';
import { TextButton } from '../../ui/TextButton';
import { strandStyle } from '../../ui/strandStyle';
import { Swatch } from '../../ui/Swatch';
import { useWorkbenchStore } from '../../state/context';
import { speedText } from '../../ui/words/units';
import styles from '../shared/group.module.css';
import { Select } from '../../ui/Select';

export interface VlanTag {
  readonly id: number;
  readonly name: string;
  readonly load: number | null;
}

interface Props {
  readonly solution: Solution | null;
  readonly tree: TreeId;
  readonly tags: readonly VlanTag[];
  /** VLANs that the map names and the list of VLANs does not, as ranges. */
  readonly unlisted: string;
  /** The switches of the region, those of its largest piece first. */
  readonly switches: readonly SwitchId[];
  readonly picked: ReadonlySet<number>;
  readonly onPick: (vid: number) => void;
  /** Takes VLANs as ranges. */
  readonly onLay: (vlans: string) => void;
  /** Null for the IST. */
  readonly onRemove: (() => void) | null;
}

export function InstanceColumn({
  solution,
  tree: id,
  tags,
  unlisted,
  switches,
  picked,
  onPick,
  onLay,
  onRemove,
}: Props) {
  const index = solution?.trees.findIndex((tree) => tree.id === id) ?? -1;
  const tree = solution?.trees[index];
  const [over, setOver] = useState(false);
  const dragged = (vid: number): string => (picked.has(vid) ? [...picked].join(',') : String(vid));
  const load = tags.reduce((sum, tag) => sum + (tag.load ?? 0), 0);
  const title = id === 'mst:0' ? 'IST' : treeName(id);
  return (
    <section
      className={styles.column}
      aria-label={title}
      data-over={over || undefined}
      style={{ borderTopColor: strandStyle(Math.max(0, index)).colour }}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        const vlans = event.dataTransfer.getData('text/plain');
        if (/^[\d,]+$/.test(vlans)) onLay(vlans);
      }}
    >
      <header className={styles.columnHead}>
        {index >= 0 && <Swatch index={index} width={24} />}
        <h3>{title[0]!.toUpperCase() + title.slice(1)}</h3>
        <span>{load > 0 ? speedText(Number(load.toPrecision(3))) : ''}</span>
        {onRemove && (
          <TextButton does="remove" onClick={onRemove} aria-label={`Remove ${title}`}>
            remove
          </TextButton>
        )}
      </header>
      {solution && tree && <Roots solution={solution} tree={tree} title={title} switches={switches} />}
      <ul className={styles.tags} aria-label={`VLANs of ${title}`}>
        {tags.map((tag) => (
          <li key={tag.id}>
            <button
              type="button"
              className={styles.tag}
              draggable
              aria-pressed={picked.has(tag.id)}
              title={`VLAN ${tag.id} ${tag.name}${tag.load === null ? '' : `, ${speedText(tag.load)}`}. Drag it to another instance, or pick it and assign it below.`}
              onDragStart={(event) => event.dataTransfer.setData('text/plain', dragged(tag.id))}
              onClick={() => onPick(tag.id)}
            >
              <b>{tag.id}</b> {tag.name}
            </button>
          </li>
        ))}
      </ul>
      {tags.length === 0 && (
        <p className={styles.soft}>
          {id === 'mst:0' ? 'No listed VLAN is left for it.' : 'No VLAN yet: drag one here.'}
        </p>
      )}
      {unlisted !== '' && <p className={styles.soft}>also {unlisted}, not listed</p>}
    </section>
  );
}

/** Switches that a choice always has ready; of more only once somebody comes near it, since every instance has two choices. */
const READY = 30;

interface RootsProps {
  readonly solution: Solution;
  readonly tree: SettledTree;
  readonly title: string;
  readonly switches: readonly SwitchId[];
}

/** Who is root and who stands by, to be changed in place. */
const Roots = memo(function Roots({ solution, tree, title, switches }: RootsProps) {
  const { network } = solution;
  const first = switches[0] === undefined ? -1 : network.switchIndex.get(switches[0])!;
  const root = first < 0 ? -1 : tree.root[first]!;
  const standby = root < 0 ? -1 : standbyRoot(tree, root);
  const chance = byChance(root < 0 ? null : explainRoot(network, tree, root));
  const all = { network, tree: tree.id, title, switches };
  return (
    <div className={styles.roots}>
      <RootChoice {...all} label="Root" now={root} as="root" chance={chance.root} />
      <RootChoice {...all} label="Standby" now={standby} as="standby" chance={chance.standby} />
    </div>
  );
});

interface ChoiceProps extends Pick<RootsProps, 'title' | 'switches'>, Pick<Solution, 'network'> {
  readonly tree: TreeId;
  readonly label: string;
  /** Index of the switch that it is; -1 where none is. */
  readonly now: number;
  readonly as: 'root' | 'standby';
  /** Whether its MAC address decided, and nobody chose it. */
  readonly chance: boolean;
}

function RootChoice({ network, tree, title, switches, label, now, as, chance }: ChoiceProps) {
  const store = useWorkbenchStore();
  const [near, setNear] = useState(false);
  const at = network.switches[now]?.id;
  const offered = near || switches.length <= READY ? switches : [];
  const nameOf = (id: SwitchId): string => network.switches[network.switchIndex.get(id)!]!.name ?? id;
  return (
    <div className={styles.rootChoice} onPointerEnter={() => setNear(true)}>
      <span aria-hidden="true">{label}</span>
      <Select<SwitchId | ''>
        label={`${label} of ${title}`}
        value={at ?? ''}
        onFocus={() => setNear(true)}
        options={[
          ...(at === undefined ? [['', 'none'] as const] : offered.includes(at) ? [] : [[at, nameOf(at)] as const]),
          ...offered.map((id) => [id, nameOf(id)] as const),
        ]}
        choose={(id) => id !== '' && placeIn(store.getState(), [tree], [id], as)}
      />
      {chance && at !== undefined && (
        <p className={styles.chance}>
          by its MAC address alone{' '}
          <TextButton
            does="edit"
            aria-label={`Choose it by priority as ${label.toLowerCase()} of ${title}`}
            onClick={() => placeIn(store.getState(), [tree], [at], as)}
          >
            choose it
          </TextButton>
        </p>
      )}
    </div>
  );
}
