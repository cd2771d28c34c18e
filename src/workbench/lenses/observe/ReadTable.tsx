'use client';
/** Who was read, taken for whom, and what nobody told; what is in doubt is settled here once, by hand. */
import type { Observation, ObservedPort, ObservedSwitch } from '../../../core/exchange/observation/observation';
import { matchPorts, type SwitchMatch } from '../../../core/exchange/observation/match';
import type { Command } from '../../../core/edit/commands';
import type { Design } from '../../../core/model/document';
import type { PortId, SwitchId } from '../../../core/model/ids';
import { nameOf } from '../../../core/model/names';
import { useFollowing, useWorkbench } from '../../state/context';
import { useEditable } from '../../ui/editable';
import { useComparison, useObservation } from '../../state/observation';
import { Select } from '../../ui/Select';
import { TextButton } from '../../ui/TextButton';
import styles from '../../ui/table.module.css';
import room from './observe.module.css';

const NOBODY = '';

export function ReadTable() {
  const { observation } = useObservation();
  const comparison = useComparison();
  const design = useFollowing((state) => state.design);
  if (!observation)
    return <p className={styles.empty}>Nothing was read yet: Held against says how a network is read.</p>;
  const match = new Map(comparison?.matches.pairs.map((pair) => [pair.observed, pair]));
  return (
    <div className={room.scroll}>
      <table className={room.differences} aria-label="Who was read">
        <thead>
          <tr>
            <th scope="col">Read at</th>
            <th scope="col">Calls itself</th>
            <th scope="col">In the design</th>
            <th scope="col">Known by</th>
            <th scope="col">Ports</th>
            <th scope="col">Trees</th>
            <th scope="col">What it did not tell</th>
          </tr>
        </thead>
        <tbody>
          {observation.switches.map((sw, i) => {
            const pair = match.get(sw);
            return (
              <tr key={i}>
                <th scope="row">{sw.source}</th>
                <td>{sw.name}</td>
                <td>
                  <Whom design={design} sw={sw} pair={pair} />
                </td>
                <td>{pair ? KNOWN_BY[pair.by] : 'in doubt'}</td>
                <td>{sw.ports.length}</td>
                <td>{sw.trees.length}</td>
                <td>{sw.missing.join(' ')}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <PortsInDoubt design={design} pairs={comparison?.matches.pairs ?? []} />
      <LeftOut observation={observation} />
    </div>
  );
}

const KNOWN_BY = { hand: 'settled by hand', address: 'address', name: 'name alone' } as const;

/** What is known by its address needs no choice. */
function Whom({
  design,
  sw,
  pair,
}: {
  readonly design: Design;
  readonly sw: ObservedSwitch;
  readonly pair: SwitchMatch | undefined;
}) {
  const select = useWorkbench((state) => state.select);
  const act = useWorkbench((state) => state.act);
  const editable = useEditable();
  const known = pair && (
    <TextButton onClick={() => select({ kind: 'switch', switch: pair.designed.id })}>
      {nameOf(pair.designed)}
    </TextButton>
  );
  if (pair?.by === 'address' || !editable) return known ?? 'nobody';
  const settle = (id: string): void => void act(...settled(design, sw, id as SwitchId | ''));
  return (
    <>
      {known}{' '}
      <Select
        label={`Who ${sw.name || sw.source} is`}
        value={pair?.by === 'hand' ? pair.designed.id : NOBODY}
        options={[
          [NOBODY, pair && pair.by !== 'hand' ? 'settle it' : 'nobody of the design'],
          ...design.switches.map((each) => [each.id as string, nameOf(each)] as const),
        ]}
        choose={settle}
      />
    </>
  );
}

/** It is this one from now on, and nobody else is. */
function settled(design: Design, sw: ObservedSwitch, id: SwitchId | ''): Command[] {
  const calls = [sw.chassis, sw.mac, sw.name].filter((each): each is string => each !== null && each !== '');
  const before = design.switches.filter(({ knownAs }) => knownAs !== undefined && calls.includes(knownAs));
  return [
    ...before
      .filter((each) => each.id !== id)
      .map((each): Command => ({ do: 'set-switch', switch: each.id, knownAs: null })),
    ...(id === NOBODY || calls[0] === undefined ? [] : [{ do: 'set-switch', switch: id, knownAs: calls[0] } as const]),
  ];
}

interface InDoubt {
  readonly pair: SwitchMatch;
  readonly port: ObservedPort;
  /** Settled by hand. */
  readonly as: PortId | null;
  readonly free: readonly PortId[];
}

/** Ports of the bridge that are none of the design's, and those that were settled. */
function portsInDoubt(design: Design, pairs: readonly SwitchMatch[]): InDoubt[] {
  return pairs.flatMap((pair) => {
    const places = matchPorts(design, pair);
    const taken = new Set([...places.values()].map(({ of }) => of.id as string));
    const free = pair.designed.ports.filter(({ id }) => !taken.has(id)).map(({ id }) => id);
    return pair.observed.ports.flatMap((port): InDoubt[] => {
      const as = pair.designed.ports.find(({ knownAs }) => knownAs === port.interface)?.id ?? null;
      if (as === null && (places.has(port.number) || port.vlans === null || free.length === 0)) return [];
      return [{ pair, port, as, free: as === null ? free : [as, ...free] }];
    });
  });
}

function asPort(sw: SwitchId, { interface: name }: ObservedPort, before: PortId | null, now: PortId | ''): Command[] {
  const gone: Command[] = before === null ? [] : [{ do: 'set-port', switch: sw, port: before, knownAs: null }];
  return now === NOBODY ? gone : [...gone, { do: 'set-port', switch: sw, port: now, knownAs: name }];
}

function PortsInDoubt({ design, pairs }: { readonly design: Design; readonly pairs: readonly SwitchMatch[] }) {
  const act = useWorkbench((state) => state.act);
  const editable = useEditable();
  const all = portsInDoubt(design, pairs).slice(0, 100);
  if (all.length === 0) return null;
  return (
    <ul aria-label="Ports in doubt" className={room.doubts}>
      {all.map(({ pair, port, as, free }) => (
        <li key={`${pair.designed.id} ${port.number}`}>
          {nameOf(pair.designed)} has {port.interface}, which is{' '}
          {editable ? (
            <Select
              label={`Which port of ${nameOf(pair.designed)} ${port.interface} is`}
              value={as ?? NOBODY}
              options={[[NOBODY, 'none of the design'], ...free.map((id) => [id as string, `port ${id}`] as const)]}
              choose={(id) => void act(...asPort(pair.designed.id, port, as, id as PortId | ''))}
            />
          ) : (
            (as ?? 'none of the design')
          )}
        </li>
      ))}
    </ul>
  );
}

function LeftOut({ observation: { leftOut } }: { readonly observation: Observation }) {
  if (leftOut.length === 0) return null;
  return (
    <ul aria-label="Left out" className={room.doubts}>
      {leftOut.map((sentence) => (
        <li key={sentence}>{sentence}</li>
      ))}
    </ul>
  );
}
