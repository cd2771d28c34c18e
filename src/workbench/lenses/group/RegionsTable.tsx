'use client';
/** Which switches form which region, and any two switches field by field. */
import { Term } from '../../ui/Term';
import { useState } from 'react';
import { namesOf } from '../../../core/model/derive/names';
import type { SwitchId } from '../../../core/model/ids';
import { type Design, mapText } from '../../../core/model/document';
import { misconfigurationsOf, type Region } from '../../../core/analysis/regions/regions';
import { TextButton } from '../../ui/TextButton';
import { useFollowing, useWorkbench, useWorkbenchStore } from '../../state/context';
import type { Item } from '../../state/selection';
import { selectionOf } from '../../state/selection';
import { counted } from '../../../core/base/words';
import { regionLetter } from './RegionOutlines';
import { CompareSwitches } from './CompareSwitches';
import styles from '../shared/group.module.css';
import { useRegions } from '../../state/useRegions';

export function RegionsTable() {
  const regions = useRegions();
  const solution = useFollowing((state) => state.solution);
  const design = useWorkbench((state) => state.design);
  const [pair, setPair] = useState<readonly [SwitchId, SwitchId] | null>(null);
  if (!solution) return null;
  if (regions.length === 0)
    return <p className={styles.empty}>No switch runs MSTP: there is no region. The board proposes one.</p>;
  const [slip] = misconfigurationsOf(solution.network, regions);
  const all = regions.flatMap((region) => region.switches);
  const first = pair?.[0] ?? slip?.switch ?? regions.at(-1)!.switches[0]!;
  const second = pair?.[1] ?? slip?.region.switches[0] ?? all.find((id) => id !== first);
  const shown = [first, second].every((id) => id !== undefined && all.includes(id))
    ? ([first, second!] as const)
    : null;
  return (
    <div className={styles.regionsRoom}>
      <section aria-label="Regions">
        <table className={`${styles.table} ${styles.fixed}`} aria-label="Regions of the network">
          <colgroup>
            <col style={{ width: '26%' }} />
            <col style={{ width: 52 }} />
            <col style={{ width: 92 }} />
            <col style={{ width: '26%' }} />
            <col />
          </colgroup>
          <thead>
            <tr>
              <th scope="col">
                <Term>Region</Term>
              </th>
              <th scope="col">
                <Term>Rev.</Term>
              </th>
              <th scope="col">
                <Term>Digest</Term>
              </th>
              <th scope="col">
                <Term>Instances</Term>
              </th>
              <th scope="col">Switches</th>
            </tr>
          </thead>
          <tbody>
            {regions.map((region, i) => (
              <RegionRow key={region.switches[0]} region={region} index={i} design={design} />
            ))}
          </tbody>
        </table>
        <Unused />
      </section>
      {shown &&
        (shown[0] === shown[1] || all.length < 2 ? null : (
          <CompareSwitches pair={shown} among={all} choose={setPair} />
        ))}
    </div>
  );
}

/** Region settings that no switch has, left over from a change. */
function Unused() {
  const design = useWorkbench((state) => state.design);
  const act = useWorkbench((state) => state.act);
  const unused = design.regions.filter((region) => design.switches.every((sw) => sw.region !== region.id));
  return unused.map((region) => (
    <p key={region.id} className={styles.soft}>
      No switch has the settings {namesOf(design).region(region.id)}.{' '}
      <TextButton does="remove" onClick={() => act({ do: 'remove-region', region: region.id })}>
        remove them
      </TextButton>
    </p>
  ));
}

/** Instances told in the table; the rest is in the title. */
const FEW = 6;

function RegionRow({
  region: { map, given, switches, pieces },
  index,
  design,
}: {
  readonly region: Region;
  readonly index: number;
  readonly design: Design;
}) {
  const store = useWorkbenchStore();
  const nameOf = (id: SwitchId): string => design.switches.find((sw) => sw.id === id)?.name ?? id;
  const { name, revision, digest } = map.configurationId;
  const instances = map.instances.map(({ mstid, vlans }) => ({ id: mstid, vlans: vlans.format() }));
  const [whole, short] = [mapText(instances), mapText(instances.slice(0, FEW))];
  const listed = (ids: readonly SwitchId[]): string =>
    ids.slice(0, 8).map(nameOf).join(', ') + (ids.length > 8 ? ` and ${ids.length - 8} more` : '');
  return (
    <tr>
      <th scope="row">
        {regionLetter(index)}. {given ? name || 'no name' : 'no settings'}
      </th>
      <td className={styles.nowrap}>{revision}</td>
      <td className={`${styles.mono} ${styles.nowrap}`} title={digest}>
        {digest.slice(0, 8)}…
      </td>
      <td title={whole.slice(0, 2000)}>
        {short}
        {instances.length > FEW ? ` and ${instances.length - FEW} instances more` : ''}
      </td>
      <td>
        <TextButton
          onClick={() =>
            store.getState().select(selectionOf(switches.map((id): Item => ({ kind: 'switch', switch: id }))))
          }
        >
          {counted(switches.length, 'switch', 'switches')}
        </TextButton>{' '}
        {pieces.length > 1 ? (
          <b>
            in {pieces.length} pieces: {pieces.map(listed).join(' | ')}
          </b>
        ) : (
          listed(switches)
        )}
      </td>
    </tr>
  );
}
