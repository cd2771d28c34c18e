'use client';
/** Members of an end: how each stands, what its partner says, both ends' state bits in words, and on the clock which timer decides next. */
import { useState } from 'react';
import type { Command } from '../../../core/edit/commands';
import type { BundleEnd, Bundles } from '../../../core/topology/lag/ends';
import type { PortInfo, SettledBundles } from '../../../core/topology/lag/settled';
import { type Participant, STATE_BITS, type StateBit } from '../../../core/modes/lacp/state';
import type { MemberMark } from '../../../core/sim/trace/memberLog';
import { TextButton } from '../../ui/TextButton';
import styles from '../../ui/panel.module.css';
import { timeText, useClock, useInstant } from '../../state/clock';
import { useWorkbench } from '../../state/context';
import own from './bundle.module.css';
import { BIT_WORDS } from './words';

interface Props {
  readonly end: BundleEnd;
  readonly bundles: Bundles;
  readonly settled: SettledBundles;
}

export function Members({ end, bundles, settled }: Props) {
  const [opened, setOpened] = useState<number | null>(null);
  const act = useWorkbench((state) => state.act);
  const links = useWorkbench((state) => state.design.links);
  const cables = links.filter((link) => end.members.some((m) => bundles.members[m]!.link === link.id));
  const whole = cables.some((link) => link.up);
  const t = useInstant((clock) => clock.t);
  const player = useClock((clock) => clock.player);
  const alike = player?.trace.design.bundles.some((bundle) => bundle.id === end.id);
  return (
    <section className={styles.section} aria-label="Members">
      <h3>Members{t === null ? '' : ` at ${timeText(t)}`}</h3>
      <ul className={own.members}>
        {end.members.map((m) => {
          const member = bundles.members[m]!;
          const place =
            player && t !== null && alike
              ? player.network.bundles.members.find(
                  (each) =>
                    each.at.switch === member.at.switch &&
                    each.at.port === member.at.port &&
                    player.network.bundles.ends[each.end]!.id === end.id,
                )
              : undefined;
          const mark = place && t !== null ? player!.memberAt(place.index, t) : null;
          const { state, reason, actor, partner } = settled.members[m]!;
          const link = links.find((each) => each.id === member.link);
          return (
            <li key={m}>
              <div className={own.memberLine}>
                <b>{end.owner.kind === 'host' ? `card ${member.id}` : `port ${member.id}`}</b>
                <span className={own.state} data-state={mark?.state ?? state}>
                  {mark?.state ?? state}
                </span>
                <span className={own.far} title={`to ${member.farName}`}>
                  to {member.farName}
                </span>
              </div>
              <p className={styles.hint}>{mark ? timerText(mark, t!) : reason}</p>
              <div className={own.memberActs}>
                {end.mode !== 'static' && (
                  <TextButton aria-expanded={opened === m} onClick={() => setOpened(opened === m ? null : m)}>
                    {opened === m ? 'hide the bits' : 'state bits'}
                  </TextButton>
                )}
                {t === null && link && (
                  <TextButton does="edit" onClick={() => act({ do: 'set-link', link: link.id, up: !link.up })}>
                    {link.up ? 'take this member down' : 'bring it back'}
                  </TextButton>
                )}
              </div>
              {opened === m && (
                <Bits
                  actor={mark?.actor ? infoOf(mark.actor) : actor}
                  partner={mark ? mark.partner && infoOf(mark.partner) : partner}
                />
              )}
            </li>
          );
        })}
      </ul>
      {t === null && cables.length > 1 && (
        <TextButton
          does="edit"
          onClick={() => act(...cables.map((link): Command => ({ do: 'set-link', link: link.id, up: !whole })))}
        >
          {whole ? 'take the whole bundle down' : 'bring the whole bundle back'}
        </TextButton>
      )}
    </section>
  );
}

/** What happens to a member by itself next. */
function timerText({ machines, expires, attaches, state }: MemberMark, t: number): string {
  if (!machines) return state === 'active' ? 'Static: active while it has signal.' : 'No timer runs.';
  const left = (at: number): string => `${((at - t) / 1_000_000).toFixed(at - t < 10_000_000 ? 3 : 1)} s`;
  const parts = [
    `Receive machine ${machines.rx.replace('_', ' ').toLowerCase()}, mux ${machines.mux.replaceAll('_', ' ').toLowerCase()}.`,
  ];
  if (attaches !== null && attaches > t && machines.mux === 'WAITING')
    parts.push(`May be attached in ${left(attaches)}.`);
  if (expires !== null && expires > t)
    parts.push(
      machines.rx === 'EXPIRED'
        ? `Gives the partner up in ${left(expires)}.`
        : `What the partner said expires in ${left(expires)}.`,
    );
  return parts.join(' ');
}

const infoOf = ({ state, ...rest }: Participant): PortInfo => ({
  ...rest,
  bits: STATE_BITS.filter((bit) => state[bit]),
});

/** Actor and partner side by side, every bit spelled out. */
function Bits({ actor, partner }: { readonly actor: PortInfo; readonly partner: PortInfo | null }) {
  const word = (of: PortInfo | null, bit: StateBit): string =>
    of ? BIT_WORDS[bit][of.bits.includes(bit) ? 0 : 1] : '–';
  const rows = [
    ['System', ({ systemPriority, system }: PortInfo) => `${systemPriority}.${system}`],
    ['Key', ({ key }: PortInfo) => String(key)],
    ['Port', ({ portPriority, port }: PortInfo) => `${portPriority}.${port}`],
  ] as const;
  return (
    <table className={own.ends} aria-label="State bits">
      <thead>
        <tr>
          <th />
          <th scope="col">actor</th>
          <th scope="col">{partner ? 'partner' : 'partner: none heard'}</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(([name, of]) => (
          <tr key={name}>
            <th scope="row">{name}</th>
            <td>{of(actor)}</td>
            <td>{partner ? of(partner) : '–'}</td>
          </tr>
        ))}
        {STATE_BITS.map((bit) => (
          <tr key={bit}>
            <th scope="row">{bit}</th>
            <td data-on={actor.bits.includes(bit) || undefined}>{word(actor, bit)}</td>
            <td data-on={partner?.bits.includes(bit) || undefined}>{word(partner, bit)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
