'use client';
/** The MST configurations of two switches field by field, the likely mistake, and making them equal with what that does. */
import { useMemo } from 'react';
import type { SwitchId } from '../../../core/model/ids';
import type { Design, Switch } from '../../../core/model/document';
import type { RegionMatch } from '../../../core/analysis/regions/matching';
import {
  compareRegions,
  instanceText,
  regionMapOf,
  misconfigurationText,
  vlansName,
} from '../../../core/analysis/regions/regions';
import { sameRegion } from '../../../core/topology/region';
import { useWorkbench } from '../../state/context';
import { askEqual } from '../../state/questions';
import { useAsk } from '../../state/ask';
import { percentText } from '../shared/loadRows';
import { Offers, type Offer } from '../shared/Offers';
import { counted } from '../../../core/base/words';
import { Asking } from '../shared/Asking';
import styles from '../shared/group.module.css';
import { mayEdit } from '../../state/looking';
import { Select } from '../../ui/Select';

interface Props {
  readonly pair: readonly [SwitchId, SwitchId];
  readonly among: readonly SwitchId[];
  readonly choose: (pair: readonly [SwitchId, SwitchId]) => void;
}

export function CompareSwitches(props: Props) {
  const switches = useWorkbench((state) => state.design.switches);
  const [a, b] = props.pair.map((id) => switches.find((sw) => sw.id === id));
  return a && b ? <Compared {...props} a={a} b={b} /> : null;
}

function Compared({ pair, among, choose, a, b }: Props & { readonly a: Switch; readonly b: Switch }) {
  const viewing = !useWorkbench(mayEdit);
  const design = useWorkbench((state) => state.design);
  const maps = [regionMapOf(design, a), regionMapOf(design, b)] as const;
  const differ = !sameRegion(regionMapOf(design, a), regionMapOf(design, b));
  const asked = useMemo(
    () => (differ && !viewing ? askEqual(design, a.id, b.id) : null),
    [differ, viewing, design, a.id, b.id],
  );
  const { status, stop } = useAsk(asked);
  if (!maps[0] || !maps[1]) return null;
  const { name, revision, digest, vlans, same } = compareRegions(maps[0], maps[1]);
  const [nameA, nameB] = [a.name ?? a.id, b.name ?? b.id];
  const pick = (at: 0 | 1, label: string) => (
    <Select
      label={label}
      value={pair[at]}
      options={among
        .filter((id) => id !== pair[1 - at])
        .map((id) => [id, design.switches.find((sw) => sw.id === id)?.name ?? id])}
      choose={(id) => choose(at === 0 ? [id, pair[1]] : [pair[0], id])}
    />
  );
  const row = (label: string, values: readonly [string, string]) => (
    <tr key={label} data-differs={values[0] !== values[1] || undefined}>
      <th scope="row">{label}</th>
      <td>{values[0]}</td>
      <td>{values[1]}</td>
      <td className={styles.nowrap}>{values[0] === values[1] ? 'equal' : 'differs'}</td>
    </tr>
  );
  const slip = misconfigurationText(nameA, maps[0], nameB, maps[1], [a.region !== undefined, b.region !== undefined]);
  return (
    <section aria-label="Two switches compared" className={styles.compare}>
      <table className={`${styles.table} ${styles.fixed}`} aria-label="Region settings of two switches">
        <colgroup>
          <col style={{ width: '20%' }} />
          <col />
          <col />
          <col style={{ width: 88 }} />
        </colgroup>
        <thead>
          <tr>
            <th scope="col">Compared</th>
            <th scope="col">{pick(0, 'First switch')}</th>
            <th scope="col">{pick(1, 'Second switch')}</th>
            <th scope="col">Difference</th>
          </tr>
        </thead>
        <tbody>
          {row('Name', [name[0] || 'none', name[1] || 'none'])}
          {row('Revision', [String(revision[0]), String(revision[1])])}
          {row('Digest', [`${digest[0].slice(0, 16)}…`, `${digest[1].slice(0, 16)}…`])}
          {/* What differs comes first. */}
          {[...vlans.filter((each) => each.a !== each.b), ...vlans.filter((each) => each.a === each.b)]
            .slice(0, 12)
            .map((each) => row(vlansName(each.vlans), [instanceText(each.a), instanceText(each.b)]))}
        </tbody>
      </table>
      {vlans.length > 12 && <p className={styles.soft}>And {vlans.length - 12} groups of VLANs more.</p>}
      <p className={styles.verdict} data-differs={!same || undefined}>
        {same
          ? `${nameA} and ${nameB} are in one region: name, revision and the whole map agree.`
          : `Not one region. ${slip}.`}
      </p>
      {asked && status.kind === 'found' && (
        <Offers offers={status.value.map(equallingOffer(design))} of={design} done={() => undefined} />
      )}
      {asked && <Asking status={status} stop={stop} what="Making them equal in the solver" />}
    </section>
  );
}

/** What an equalling brings: `regions 2 to 1; links across a boundary 4 to 2; 3 ports change; …`. */
export const equallingOffer =
  (design: Design) =>
  ({ switch: one, like, commands, regions, boundaries, moved, idle, peak }: RegionMatch): Offer => {
    const nameOf = (id: SwitchId): string => design.switches.find((sw) => sw.id === id)?.name ?? id;
    return {
      commands,
      sentence: `Give ${nameOf(one)} the settings of ${nameOf(like)}`,
      price: [
        `regions ${regions[0]} to ${regions[1]}`,
        `links across a boundary ${boundaries[0]} to ${boundaries[1]}`,
        counted(moved, 'port changes', 'ports change'),
        `idle links ${idle[0]} to ${idle[1]}`,
        `most loaded link ${percentText(peak[0] * 100)} to ${percentText(peak[1] * 100)}`,
      ].join('; '),
    };
  };
