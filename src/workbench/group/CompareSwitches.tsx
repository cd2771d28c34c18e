'use client';
/** The MST configurations of two switches field by field, the likely slip, and making them equal with what that does. */
import { useMemo } from 'react';
import type { Command } from '../../core/design/commands';
import { editAll } from '../../core/design/edit';
import type { SwitchId } from '../../core/design/ids';
import type { Design, Switch } from '../../core/design/schema';
import { linkLoads } from '../../core/study/load';
import { compareRegions, instanceText, regionMapOf, regionsIn, slipText, vlansName } from '../../core/study/regions';
import { movedEnds } from '../../core/tree/moved';
import type { Solution } from '../../core/tree/settled';
import { solve } from '../../core/tree/solve';
import { useWorkbench } from '../state/context';
import { percentText } from '../steering/loadRows';
import { Offers, type Offer } from '../steering/Offers';
import { counted } from '../words/units';
import styles from './group.module.css';

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
  const present = useWorkbench((state) => (state.viewing === null ? state.solution : null));
  const design = useWorkbench((state) => state.design);
  const maps = [regionMapOf(design, a), regionMapOf(design, b)] as const;
  const offers = useMemo(() => (present ? offersOf(present, a, b) : []), [present, a, b]);
  if (!maps[0] || !maps[1]) return null;
  const { name, revision, digest, vlans, same } = compareRegions(maps[0], maps[1]);
  const [nameA, nameB] = [a.name ?? a.id, b.name ?? b.id];
  const pick = (at: 0 | 1, label: string) => (
    <select aria-label={label} value={pair[at]} onChange={(event) => choose(at === 0 ? [event.target.value as SwitchId, pair[1]] : [pair[0], event.target.value as SwitchId])}>
      {among.filter((id) => id !== pair[1 - at]).map((id) => <option key={id} value={id}>{design.switches.find((sw) => sw.id === id)?.name ?? id}</option>)}
    </select>
  );
  const row = (label: string, values: readonly [string, string]) => (
    <tr key={label} data-differs={values[0] !== values[1] || undefined}>
      <th scope="row">{label}</th><td>{values[0]}</td><td>{values[1]}</td><td>{values[0] === values[1] ? 'equal' : 'differs'}</td>
    </tr>
  );
  const slip = slipText(nameA, maps[0], nameB, maps[1], [a.region !== undefined, b.region !== undefined]);
  return (
    <section aria-label="Two switches compared" className={styles.compare}>
      <table className={styles.table} aria-label="Region settings of two switches">
        <thead><tr><th scope="col">Compared</th><th scope="col">{pick(0, 'First switch')}</th><th scope="col">{pick(1, 'Second switch')}</th><th scope="col" /></tr></thead>
        <tbody>
          {row('Name', [name[0] || 'none', name[1] || 'none'])}
          {row('Revision', [String(revision[0]), String(revision[1])])}
          {row('Digest', [`${digest[0].slice(0, 16)}…`, `${digest[1].slice(0, 16)}…`])}
          {vlans.slice(0, 12).map((each) => row(vlansName(each.vlans), [instanceText(each.a), instanceText(each.b)]))}
        </tbody>
      </table>
      {vlans.length > 12 && <p className={styles.soft}>And {vlans.length - 12} groups of VLANs more.</p>}
      <p className={styles.verdict} data-differs={!same || undefined}>{same ? `${nameA} and ${nameB} are in one region: name, revision and the whole map agree.` : `Not one region. ${slip}.`}</p>
      {!same && present && <Offers offers={offers} of={present.network.design} done={() => undefined} />}
    </section>
  );
}

/** Either one with the other's settings, and what that does to trees and links. */
function offersOf(before: Solution, a: Switch, b: Switch): Offer[] {
  return ([[a, b], [b, a]] as const).flatMap(([one, other]): Offer[] => {
    const commands: Command[] = [{ do: 'set-switch', switch: one.id, region: other.region ?? null }];
    if (other.region === undefined) return [];
    return [{ commands, sentence: `Give ${one.name ?? one.id} the settings of ${other.name ?? other.id}`, price: effectText(before, commands) }];
  });
}

function effectText(before: Solution, commands: readonly Command[]): string {
  const edited = editAll(before.network.design, commands);
  const solved = edited.ok ? solve(edited.value.design) : null;
  if (!solved?.ok) return '';
  const after = solved.value;
  const count = (of: Solution): number => regionsIn(of.network).reduce((sum, region) => sum + region.pieces.length, 0);
  const boundaries = (of: Solution): number => boundaryLinks(of.network.design, of);
  const loads = [linkLoads(before), linkLoads(after)] as const;
  return [
    `regions ${count(before)} to ${count(after)}`, `links across a boundary ${boundaries(before)} to ${boundaries(after)}`, counted(movedEnds(before, after).length, 'end moves', 'ends move'),
    `idle links ${loads[0].idle.length} to ${loads[1].idle.length}`, `most loaded link ${percentText((loads[0].peak?.share ?? 0) * 100)} to ${percentText((loads[1].peak?.share ?? 0) * 100)}`,
  ].join('; ');
}

/** Live links with an end that leads out of its region. */
function boundaryLinks(design: Design, { network, trees }: Solution): number {
  const inside = trees[0]?.regional?.inside;
  return design.links.filter(({ a, b }) => {
    const ends = [network.portIndexOf(a.switch, a.port), network.portIndexOf(b.switch, b.port)];
    return ends.every((p) => network.live[p] === 1) && ends.some((p) => network.switches[network.owner[p]!]!.dialect === 'mstp' && inside?.[p] === 0);
  }).length;
}
