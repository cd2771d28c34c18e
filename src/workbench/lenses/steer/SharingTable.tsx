'use client';
/** Sharing: what each link carries, which links idle, and ways to spread trees over uplinks. */
import Button from '@mui/material/Button';
import type { GridColDef } from '@mui/x-data-grid';
import { useCallback, useMemo, useState } from 'react';
import { treesName, treeVlan, type LinkId, type TreeId } from '../../../core/model/ids';
import type { Design } from '../../../core/model/document';
import { VlanSet } from '../../../core/model/vlanSet';
import { fail, ok, type Result } from '../../../core/base/result';
import { laterVlan } from '../../../core/analysis/steering/laterVlan';
import type { Loads } from '../../../core/analysis/sharing/load';
import { uplinksOf, type SharingProposal } from '../../../core/analysis/sharing/share';
import { treeForVlan } from '../../../core/tree/passing';
import type { Solution } from '../../../core/tree/settled';
import { TextButton } from '../../ui/TextButton';
import { Grid } from '../../ui/Grid';
import { useFollowing, useWorkbench, useWorkbenchStore } from '../../state/context';
import { itemsOf, type Item } from '../../state/selection';
import { askSharing } from '../../state/questions';
import { counted } from '../../../core/base/words';
import { LoadChart, MOST_BARS } from '../shared/LoadChart';
import { linkNames, loadRows, percentText, type LoadRow } from '../shared/loadRows';
import { Asking } from '../shared/Asking';
import { askLoads } from '../../state/questions';
import { useAsk } from '../../state/ask';
import { type Offer } from '../shared/Offers';
import { SearchStatus } from '../shared/SearchStatus';
import styles from '../shared/steering.module.css';
import { useAskOnDemand } from '../../state/ask';
import { mayEdit } from '../../state/looking';

export function SharingTable() {
  const solution = useFollowing((state) => state.solution);
  const design = solution?.network.design ?? null;
  const { status, stop } = useAsk(useMemo(() => (design ? askLoads(design) : null), [design]));
  // The last loads stay, with the network that they belong to, until newer ones are there.
  const [kept, setKept] = useState<Shown | null>(null);
  if (solution && status.kind === 'found' && kept?.loads !== status.value) setKept({ solution, loads: status.value });
  const [before, setBefore] = useState<Loads | null>(null);
  const proposed = useWorkbench((state) => state.looking.kind === 'proposal');
  if (!kept) return solution ? <Asking status={status} stop={stop} what="Adding up the loads" /> : null;
  const { loads } = kept;
  if (loads.links.length === 0)
    return <p className={styles.hint}>No cable joins two switches yet: there is nothing to share.</p>;
  return (
    <div className={styles.sharing}>
      {status.kind === 'refused' && <Asking status={status} stop={stop} what="" />}
      <LoadsOf {...kept} before={proposed ? before : null} />
      <SharePanel {...kept} keep={setBefore} />
    </div>
  );
}

interface Shown {
  readonly solution: Solution;
  readonly loads: Loads;
}

const COLUMNS: GridColDef<LoadRow>[] = [
  { field: 'link', headerName: 'Link', width: 220 },
  { field: 'speed', headerName: 'Speed', width: 90 },
  {
    field: 'percent',
    headerName: 'Load',
    type: 'number',
    width: 84,
    valueFormatter: (value: number) => percentText(value),
  },
  { field: 'load', headerName: 'in all', width: 90 },
  { field: 'state', headerName: 'Link is', width: 120 },
  { field: 'trees', headerName: 'By tree', flex: 1, minWidth: 200 },
];

/** The loads as a chart or as a table. */
function LoadsOf({ solution, loads, before }: Shown & { readonly before: Loads | null }) {
  const store = useWorkbenchStore();
  const [as, setAs] = useState<'chart' | 'table'>('chart');
  const rows = useMemo(() => loadRows(solution.network.design, loads, before), [solution, loads, before]);
  const open = useCallback((id: LinkId) => store.getState().goTo({ kind: 'link', link: id }), [store]);
  const names = linkNames(solution.network.design);
  return (
    <section aria-label="Load of the links" className={styles.loads}>
      <div className={styles.row}>
        <h3>
          Busy-hour load of the links, in per cent of their speed{before ? '; outlines: before the proposal' : ''}
        </h3>
        {(['chart', 'table'] as const).map((each) => (
          <TextButton key={each} aria-pressed={as === each} onClick={() => setAs(each)}>
            {each}
          </TextButton>
        ))}
      </div>
      {as === 'chart' ? (
        <div className={styles.chartRoom}>
          <LoadChart
            rows={rows.filter((row) => row.percent > 0 || (row.was ?? 0) > 0)}
            trees={solution.trees.map((tree) => tree.id)}
            onOpen={open}
          />
          {rows.length > MOST_BARS && (
            <p className={styles.hint}>
              The {MOST_BARS} most loaded of {rows.length} links; the table has all.
            </p>
          )}
          <p className={styles.hint}>
            {loads.idle.length === 0 ? 'No link idles.' : `${counted(loads.idle.length, 'link idles', 'links idle')}: `}
            {loads.idle.slice(0, MOST_BARS).map((id) => (
              <TextButton key={id} onClick={() => open(id)}>
                {names.get(id)}
              </TextButton>
            ))}
            {loads.idle.length > MOST_BARS && ` and ${loads.idle.length - MOST_BARS} more`}
          </p>
        </div>
      ) : (
        <Grid aria-label="Load of the links by trees" rows={rows} columns={COLUMNS} onOpen={(row) => open(row.id)} />
      )}
    </section>
  );
}

/** The trees of VLANs as typed, all of the listed VLANs where nothing is; the error is a sentence. */
export function treesTyped(solution: Solution, text: string): Result<TreeId[], string> {
  const declared = new Set(solution.network.design.vlans.map((vlan) => vlan.id));
  const ids = solution.trees.map((tree) => tree.id);
  if (text.trim() === '') return ok(ids.filter((id) => treeVlan(id) === null || declared.has(treeVlan(id)!)));
  const wanted = VlanSet.parse(text);
  if (!wanted.ok)
    return fail(`${wanted.error.found} at character ${wanted.error.at + 1}; write ${wanted.error.allowed}.`);
  const having = new Set(
    [...declared].filter((vid) => wanted.value.has(vid)).map((vid) => treeForVlan(solution, vid)?.id),
  );
  const found = ids.filter((id) => having.has(id));
  return found.length > 0 ? ok(found) : fail('No tree has one of these VLANs.');
}

function SharePanel({ solution, loads, keep }: Shown & { readonly keep: (before: Loads) => void }) {
  const selection = useWorkbench((state) => state.selection);
  const viewing = !useWorkbench(mayEdit);
  const select = useWorkbench((state) => state.select);
  const [text, setText] = useState('');
  const search = useAskOnDemand<SharingProposal[]>();
  const { network } = solution;
  const trees = treesTyped(solution, text);
  const picked = itemsOf(selection).flatMap((item) => (item.kind === 'link' ? [item.link] : []));
  const up = useMemo(() => uplinksOf(network), [network]);
  // Where no switch is stronger than another, all links are.
  const own = up.length > 0 ? up : network.design.links.map((link) => link.id);
  const uplinks = picked.length > 0 ? picked : own;
  const idle = useMemo(() => {
    const all = new Set(loads.idle);
    return uplinks.filter((id) => all.has(id)).length;
  }, [loads, uplinks]);
  const later = useMemo(() => laterVlan(solution), [solution]);
  const go = () => {
    if (!trees.ok) return;
    keep(loads);
    search.go(askSharing(network.design, trees.value, uplinks));
  };
  return (
    <section aria-label="Share trees over uplinks" className={styles.panel}>
      <h3>Share trees over uplinks</h3>
      <div className={styles.row}>
        <input
          className={styles.input}
          value={text}
          placeholder="all VLANs, or 15-35"
          aria-label="Trees to share"
          aria-invalid={!trees.ok}
          onChange={(event) => setText(event.target.value)}
        />
        <span>
          over {counted(uplinks.length, 'link')}{' '}
          {picked.length > 0
            ? 'that are selected'
            : up.length > 0
              ? 'that lead to a stronger tier'
              : 'of this network, whose switches are of one tier'}
          , {idle === 0 ? 'none of them idle' : `${idle} of them idle`}
        </span>
        {picked.length === 0 && own.length > 0 && (
          <TextButton
            onClick={() => select({ kind: 'several', items: own.map((link): Item => ({ kind: 'link', link })) })}
          >
            select them
          </TextButton>
        )}
      </div>
      {!trees.ok && (
        <p className={styles.fault} role="alert">
          {trees.error}
        </p>
      )}
      <div className={styles.row}>
        <Button variant="outlined" disabled={viewing || !trees.ok || search.status.kind === 'busy'} onClick={go}>
          Propose ways to share
        </Button>
        {search.status.kind === 'found' && (
          <TextButton does="plain" onClick={search.clear}>
            clear
          </TextButton>
        )}
      </div>
      <SearchStatus search={search} offer={sharingOffer} />
      {search.status.kind !== 'found' && <Notes design={network.design} loads={loads} later={later} />}
    </section>
  );
}

/** A way to share with what it brings: `the most loaded link from 551 % to 52 %; 8 idle links become 2; 87 ports change`. */
export const sharingOffer = ({ commands, sentence, before, after, uplinks, moved }: SharingProposal): Offer => ({
  commands,
  sentence,
  price: [
    `most loaded link ${percentText((before.peak?.share ?? 0) * 100)} to ${percentText((after.peak?.share ?? 0) * 100)}`,
    `of these ${percentText(uplinks[0] * 100)} to ${percentText(uplinks[1] * 100)}`,
    `idle links ${before.idle.length} to ${after.idle.length}`,
    counted(moved.length, 'port changes', 'ports change'),
  ].join('; '),
});

/** What the figures rest on, and what becomes of VLANs added later. */
function Notes({
  design,
  loads,
  later,
}: {
  readonly design: Design;
  readonly loads: Loads;
  readonly later: ReturnType<typeof laterVlan>;
}) {
  const name = later && (design.switches.find((sw) => sw.id === later.root)?.name ?? later.root);
  return (
    <>
      <p className={styles.hint}>
        {loads.assumed ? 'No VLAN has a load yet, so each counts as 1 Mb/s; loads are set in the table of VLANs. ' : ''}
        {loads.unset.length > 0
          ? `Without a load: ${treesName(loads.unset.map((vid): TreeId => `vlan:${vid}` as TreeId))}. `
          : ''}
        A VLAN’s load is spread over the pairs of its hosts; with fewer than two hosts it goes between its access
        switches and the root.
      </p>
      {later && (
        <p className={styles.hint}>
          A VLAN added later has no settings of its own and goes with the default: root {name}
          {later.links[0] < later.links[1]
            ? `, and ${later.links[0] === 0 ? 'no link carries' : `only ${later.links[0]} of ${later.links[1]} links carry`} it until their lists of VLANs name it`
            : ''}
          .
        </p>
      )}
    </>
  );
}
