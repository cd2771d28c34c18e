'use client';
/** Frame paths: who reaches whom, by which way, now or at the instant shown; and what would circle without spanning tree. */
import { useMemo, useState } from 'react';
import { vlanSet } from '../../../core/model/vlanSet';
import type { HostId } from '../../../core/model/ids';
import type { Design, Host } from '../../../core/model/document';
import { MOST_COPIES, forwardingLoops } from '../../../core/sim/traffic/loops';
import {
  followFlood,
  followFrame,
  settledPassage,
  type FrameWay,
  type Passage,
} from '../../../core/sim/traffic/passage';
import { bridgePortOf } from '../../../core/topology/network';
import { solve } from '../../../core/tree/solve';
import { TextButton } from '../../ui/TextButton';
import { timeText, useClock, useInstant } from '../../state/clock';
import { useFollowing, useWorkbench } from '../../state/context';
import { counted } from '../../../core/base/words';
import styles from '../shared/clock.module.css';
import { Select } from '../../ui/Select';

/** Most hosts in the matrix: more are not readable side by side. */
const MOST_HOSTS = 40;

export function ReachTable() {
  const design = useFollowing((state) => state.design);
  const solution = useFollowing((state) => state.solution);
  const instant = useInstant((clock) => clock.instant);
  const player = useClock((clock) => clock.player);
  const start = useMemo(() => player?.at(0) ?? null, [player]);
  const pair = useClock((clock) => clock.pair);
  const vlans = useMemo(() => [...new Set(design.hosts.map((host) => host.vlan))].sort((a, b) => a - b), [design]);
  /** Null: as the pair that is followed, or the first with two hosts; 0: all VLANs. */
  const [picked, setVlan] = useState<number | null>(null);
  const chosenVlan = pair ? design.hosts.find((host) => host.id === pair.from)?.vlan : undefined;
  const vlan =
    picked ??
    chosenVlan ??
    vlans.find((vid) => design.hosts.filter((host) => host.vlan === vid).length > 1) ??
    vlans[0] ??
    1;
  const settled = useMemo(() => solution && settledPassage(solution), [solution]);
  const now = instant ?? settled;
  const hosts = design.hosts.filter((host) => vlan === 0 || host.vlan === vlan);
  if (design.hosts.length === 0)
    return (
      <p className={styles.hint}>There are no hosts: add some in the Cable view, and their frames can be followed.</p>
    );
  if (!now) return <p className={styles.hint}>Waiting for the trees.</p>;
  return (
    <div className={styles.split}>
      <div>
        <div className={styles.line}>
          <label>
            VLAN{' '}
            <Select
              value={String(vlan)}
              options={[
                ['0', 'all'],
                ...vlans.map(
                  (vid) => [String(vid), `${vid} ${design.vlans.find((each) => each.id === vid)?.name ?? ''}`] as const,
                ),
              ]}
              choose={(vid) => setVlan(Number(vid))}
            />
          </label>
          {instant ? `at ${timeText(instant.t)}, beside the start` : 'once all has settled'}
        </div>
        <Matrix hosts={hosts} now={now} before={start} />
        {vlan !== 0 && <Loops design={design} vlan={vlan} />}
      </div>
      <Way now={now} design={design} />
    </div>
  );
}

/** Every host of the VLAN against every other: how many switches a frame passes, or why it does not arrive. */
function Matrix({
  hosts,
  now,
  before,
}: {
  readonly hosts: readonly Host[];
  readonly now: Passage;
  readonly before: Passage | null;
}) {
  const pair = useClock((clock) => clock.pair);
  const follow = useClock((clock) => clock.follow);
  const player = useClock((clock) => clock.player);
  const instant = useInstant((clock) => clock.instant);
  const causes = useMemo(
    () =>
      instant && new Map(player?.reach.pairs.map((each, i) => [`${each.from}\n${each.to}`, instant.causes[i] ?? null])),
    [player, instant],
  );
  if (hosts.length < 2)
    return (
      <p className={styles.hint}>
        {hosts[0]?.name ?? hosts[0]?.id} is the only host of this VLAN: there is nobody to reach.
      </p>
    );
  const drawn = hosts.slice(0, MOST_HOSTS);
  const name = (host: Host): string => host.name ?? host.id;
  return (
    <>
      <table className={styles.matrix} aria-label="Reachability">
        <thead>
          <tr>
            <th>from, to</th>
            {drawn.map((host) => (
              <th key={host.id} scope="col">
                {name(host)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {drawn.map((from) => (
            <tr key={from.id}>
              <th scope="row">{name(from)}</th>
              {drawn.map((to) => {
                if (from === to || from.vlan !== to.vlan)
                  return (
                    <td key={to.id} data-none="">
                      ·
                    </td>
                  );
                const way = followFrame(now, from.id, to.id);
                const was = before && followFrame(before, from.id, to.id);
                const cause = causes?.get(`${from.id}\n${to.id}`) ?? (way.arrives ? null : 'no path');
                const text =
                  cause ??
                  (way.arrives
                    ? `${way.hops.length} ${way.hops.length === 1 ? 'switch' : 'switches'}${was?.arrives && was.hops.map((hop) => hop.link).join() !== way.hops.map((hop) => hop.link).join() ? ', another way' : ''}`
                    : 'no path');
                const chosen = pair?.from === from.id && pair.to === to.id;
                return (
                  <td key={to.id} data-cut={cause ? '' : undefined} data-chosen={chosen ? '' : undefined}>
                    <button
                      type="button"
                      aria-pressed={chosen}
                      title={`${name(from)} to ${name(to)}`}
                      onClick={() => follow({ from: from.id, to: to.id })}
                    >
                      {text}
                    </button>
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      {hosts.length > MOST_HOSTS && (
        <p className={styles.hint}>{hosts.length - MOST_HOSTS} more hosts of this VLAN are not shown.</p>
      )}
    </>
  );
}

/** The way of the frame that is followed, hop by hop; and the links that lie idle, each with its reason. */
function Way({ now, design }: { readonly now: Passage; readonly design: Design }) {
  const pair = useClock((clock) => clock.pair);
  const way = useClock((clock) => clock.way);
  const follow = useClock((clock) => clock.follow);
  const goTo = useWorkbench((state) => state.goTo);
  const setFocus = useWorkbench((state) => state.setFocus);
  const name = (id: HostId): string => design.hosts.find((host) => host.id === id)?.name ?? id;
  const host = (id: HostId | undefined, set: (id: HostId) => void, label: string) => (
    <label>
      {label}{' '}
      <Select<HostId | ''>
        label={label === 'to' ? 'To host' : 'From host'}
        value={id ?? ''}
        options={[
          ['', 'choose'],
          ...design.hosts.map((each) => [each.id, `${each.name ?? each.id}, VLAN ${each.vlan}`] as const),
        ]}
        choose={(host) => host !== '' && set(host)}
      />
    </label>
  );
  const [half, setHalf] = useState<HostId | undefined>(undefined);
  const from = pair?.from ?? half;
  return (
    <div>
      <div className={styles.line}>
        {host(from, (id) => (pair ? follow({ from: id, to: pair.to }) : setHalf(id)), 'A frame from')}
        {host(pair?.to, (id) => from && follow({ from, to: id }), 'to')}
        {way?.arrives && (
          <TextButton
            onClick={() => setFocus({ kind: 'around', switches: way.hops.map((hop) => hop.switch), hops: 0 })}
            title="on the map only the switches that it passes"
          >
            only its way
          </TextButton>
        )}
        {pair && (
          <TextButton does="plain" onClick={() => follow(null)}>
            follow none
          </TextButton>
        )}
      </div>
      {pair && way && (
        <Hops
          way={way}
          from={name(pair.from)}
          to={name(pair.to)}
          onPort={(sw, port) => goTo({ kind: 'port', switch: sw, port })}
          nameOf={(id) => design.switches.find((sw) => sw.id === id)?.name ?? id}
        />
      )}
      {pair && <Idle now={now} pair={pair} way={way} />}
      {!pair && (
        <p className={styles.hint}>
          Choose two hosts, or a cell of the table: the way of their frames is drawn on the map.
        </p>
      )}
    </div>
  );
}

function Hops({
  way,
  from,
  to,
  onPort,
  nameOf,
}: {
  readonly way: FrameWay;
  readonly from: string;
  readonly to: string;
  readonly onPort: (
    sw: Extract<FrameWay, { arrives: true }>['hops'][number]['switch'],
    port: Extract<FrameWay, { arrives: true }>['hops'][number]['in'],
  ) => void;
  readonly nameOf: (id: string) => string;
}) {
  if (!way.arrives) return <p role="status">{way.why}</p>;
  return (
    <p role="status" className={styles.hops}>
      {from}
      {way.hops.map((hop) => (
        <span key={hop.switch}>
          {' → '}
          <TextButton onClick={() => onPort(hop.switch, hop.in)}>{hop.in}</TextButton> {nameOf(hop.switch)}{' '}
          <TextButton onClick={() => onPort(hop.switch, hop.out)}>{hop.out}</TextButton>
        </span>
      ))}
      {' → '}
      {to}
    </p>
  );
}

/** Links of the VLAN that the frame does not take: a port discards there, or its first copies end there. */
function Idle({
  now,
  pair,
  way,
}: {
  readonly now: Passage;
  readonly pair: { readonly from: HostId };
  readonly way: FrameWay | null;
}) {
  const { design, portIndexOf, switches, owner } = now.network;
  const host = design.hosts.find((each) => each.id === pair.from);
  if (!host) return null;
  const flood = followFlood(now, pair.from);
  const taken = new Set(way?.arrives ? way.hops.map((hop) => hop.link) : []);
  const name = (p: number): string => switches[owner[p]!]!.name ?? switches[owner[p]!]!.id;
  const idle = design.links.flatMap((link) => {
    const ends = [link.a, link.b].map((end) => bridgePortOf(now.network, portIndexOf(end.switch, end.port)));
    const carries = ends.every((p) => now.network.carried[p]!.has(host.vlan));
    if (taken.has(link.id) || !carries) return [];
    const closed = ends.find((p) => !now.passes(host.vlan, p));
    if (closed === undefined) return [];
    const dead = !now.carries(ends[0]!) && !now.carries(ends[1]!);
    return [
      {
        id: link.id,
        text: `${link.a.switch} ${link.a.port} to ${link.b.switch} ${link.b.port}`,
        why: dead ? 'no signal' : `${name(closed)} does not forward there`,
      },
    ];
  });
  return (
    <>
      <p className={styles.hint}>
        Were its destination unknown, the first frame would be copied onto {flood.links.length}{' '}
        {flood.links.length === 1 ? 'link' : 'links'} and reach {flood.hosts.length}{' '}
        {flood.hosts.length === 1 ? 'host' : 'hosts'}.{idle.length > 0 && ' No frame of this VLAN passes:'}
      </p>
      <ul className={styles.idle}>
        {idle.map((link) => (
          <li key={link.id}>
            {link.text}: {link.why}
          </li>
        ))}
      </ul>
    </>
  );
}

/** What one broadcast would become if no switch ran spanning tree. */
function Loops({ design, vlan }: { readonly design: Design; readonly vlan: number }) {
  const found = useMemo(() => {
    const open = solve({ ...design, switches: design.switches.map((sw) => ({ ...sw, dialect: 'off' as const })) });
    return forwardingLoops(settledPassage(open), vlan);
  }, [design, vlan]);
  const carried = design.switches.some((sw) =>
    sw.ports.some((port) =>
      vlanSet(port.vlans.mode === 'access' ? String(port.vlans.vlan) : port.vlans.allowed).has(vlan),
    ),
  );
  if (!carried) return null;
  if (!found)
    return (
      <p className={styles.hint}>
        Even without spanning tree nothing would circle in VLAN {vlan}: there is no second way.
      </p>
    );
  const most = Math.log10(Math.max(...found.copies) + 1);
  return (
    <section aria-label="Without spanning tree">
      <h3 className={styles.heading}>Without spanning tree</h3>
      <p className={styles.hint}>
        One broadcast in VLAN {vlan} would circle on {found.links.length} links and be{' '}
        {copiesText(found.copies.at(-1)!)} after {found.copies.length} hops; {found.flapping.length} switches would
        learn its sender by turns at several ports.
      </p>
      <svg
        className={styles.copies}
        viewBox={`0 0 ${found.copies.length * 12} 46`}
        role="img"
        aria-label={`Frames after each hop: ${found.copies.join(', ')}`}
      >
        {found.copies.map((count, i) => {
          const height = Math.max(1, (Math.log10(count + 1) / most) * 42);
          return (
            <rect key={i} x={i * 12} y={44 - height} width={9} height={height} fill="var(--ink)">
              <title>{`after ${i + 1} ${i === 0 ? 'hop' : 'hops'}: ${copiesText(count)}`}</title>
            </rect>
          );
        })}
      </svg>
      <p className={styles.hint}>Frames after each hop; each step up is ten times as many.</p>
    </section>
  );
}

const copiesText = (count: number): string =>
  count >= MOST_COPIES
    ? `more than ${MOST_COPIES.toLocaleString('en').replaceAll(',', '\u202f')} frames`
    : counted(count, 'frame');
