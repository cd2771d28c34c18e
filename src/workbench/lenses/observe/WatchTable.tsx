'use client';
/** A network that is watched: how, and what has happened, each event with its instant on the map. */
import { useEffect, useMemo, useRef, useState } from 'react';
import { counted } from '../../../core/base/words';
import type { WatchSettings, WatchView } from '../../../contract/observe';
import { api } from '../../state/api';
import { useWorkbench } from '../../state/context';
import { askEarlier, refreshWatch, useWatched } from '../../state/watching';
import { TextButton } from '../../ui/TextButton';
import styles from '../../ui/table.module.css';
import type { ObservedTime } from './observedTime';
import room from './observe.module.css';
import { timeText } from './timeText';
import { WatchBand } from './WatchBand';
import { WatchForm } from './WatchForm';

/** So many events are drawn, and so many more each time that is asked for. */
const SOME = 300;

export function WatchTable() {
  const { view, trouble } = useWatched();
  const [open, setOpen] = useState(false);
  const readOnly = useWorkbench((state) => state.readOnly);
  const [refused, setRefused] = useState<string | null>(null);
  if (!view) return <p className={styles.empty}>{trouble ?? 'Asking the server.'}</p>;
  // Whoever only reads sees what happened.
  const isForm = !readOnly && (open || !view.settings);
  return (
    <div className={room.watch}>
      <Standing view={view} isForm={isForm} toggle={() => setOpen(!isForm)} refused={setRefused} />
      {refused !== null && (
        <p className={styles.fault} role="alert">
          {refused}
        </p>
      )}
      {isForm && <WatchForm view={view} done={() => setOpen(false)} />}
      {view.first !== null && <WatchBand view={view} beside={(time) => <Events view={view} {...time} />} />}
    </div>
  );
}

interface StandingProps {
  readonly view: WatchView;
  readonly isForm: boolean;
  readonly toggle: () => void;
  readonly refused: (why: string | null) => void;
}

function Standing({ view, isForm, toggle, refused }: StandingProps) {
  const id = useWorkbench((state) => state.id);
  const readOnly = useWorkbench((state) => state.readOnly);
  const { settings } = view;
  const set = async (part: Partial<WatchSettings>) => {
    const done = await api.setWatch(id, { ...settings!, ...part });
    refused(done.ok ? null : done.error.message);
    await refreshWatch(id);
  };
  const forget = async () => {
    await api.forgetWatch(id);
    await refreshWatch(id);
  };
  return (
    <div className={styles.filter}>
      <span role="status">{settings ? standingText(view) : 'This network is not watched.'}</span>
      {settings && !readOnly && (
        <>
          <TextButton does="plain" onClick={() => void set({ on: !settings.on })}>
            {settings.on ? 'stop watching' : 'go on watching'}
          </TextButton>
          <TextButton aria-pressed={isForm} onClick={toggle}>
            settings
          </TextButton>
          {view.first !== null && <Forget view={view} forget={() => void forget()} />}
        </>
      )}
      {view.unsent !== null && <span className={styles.fault}>{view.unsent}</span>}
    </div>
  );
}

/** It cannot be undone, so it is asked for twice. */
function Forget({ view, forget }: { readonly view: WatchView; readonly forget: () => void }) {
  const [isAsked, setAsked] = useState(false);
  if (!isAsked)
    return (
      <TextButton does="remove" title="all readings and events; the settings stay" onClick={() => setAsked(true)}>
        forget what was read
      </TextButton>
    );
  return (
    <>
      <span role="alert">{counted(view.readings, 'reading')} and all events go for good.</span>
      <TextButton
        does="remove"
        onClick={() => {
          setAsked(false);
          forget();
        }}
      >
        forget them
      </TextButton>
      <TextButton does="plain" onClick={() => setAsked(false)}>
        keep them
      </TextButton>
    </>
  );
}

function standingText({ settings, last, readings, kept }: WatchView): string {
  const size = kept < 1024 * 1024 ? `${Math.ceil(kept / 1024)} KiB` : `${(kept / 1024 / 1024).toFixed(1)} MiB`;
  const read =
    last === null ? 'nothing read yet' : `${counted(readings, 'reading')} kept, ${size}, the last at ${timeText(last)}`;
  return settings!.on ? `Watched every ${settings!.every} s: ${read}.` : `Not watched now: ${read}.`;
}

/** How high the table's head is. */
const HEAD = 30;

/** What happened at the instant shown comes into view, from its first sentence on, where none of it is. */
function bringIntoView(list: HTMLElement): void {
  const rows = [...list.querySelectorAll<HTMLElement>('[aria-current]')];
  const { scrollTop, clientHeight } = list;
  const isSeen = ({ offsetTop, offsetHeight }: HTMLElement): boolean =>
    offsetTop >= scrollTop + HEAD && offsetTop + offsetHeight <= scrollTop + clientHeight;
  if (rows[0] && !rows.some(isSeen)) list.scrollTop = rows[0].offsetTop - HEAD;
}

/** The newest moment first, and within one the worst. */
function Events({
  view: { events, oldest },
  shown,
  show,
}: Pick<ObservedTime, 'shown' | 'show'> & { readonly view: WatchView }) {
  const id = useWorkbench((state) => state.id);
  const [most, setMost] = useState(SOME);
  const hasEarlier = events.length > most || (oldest !== null && events[0]!.id > oldest);
  const newest = useMemo(() => events.toSorted((a, b) => b.at - a.at || a.id - b.id).slice(0, most), [events, most]);
  const current = shown === null ? undefined : newest.find(({ at }) => at <= shown)?.at;
  const list = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (current !== undefined && list.current) bringIntoView(list.current);
  }, [current]);
  if (events.length === 0) return <p className={styles.empty}>Nothing has happened yet.</p>;
  return (
    <div ref={list} className={room.events}>
      <table className={room.differences} aria-label="What happened">
        <thead>
          <tr>
            <th scope="col">When</th>
            <th scope="col">What happened</th>
          </tr>
        </thead>
        <tbody>
          {newest.map((event, i) => (
            <tr key={event.id} aria-current={event.at === current ? 'true' : undefined}>
              <th scope="row">{event.at === newest[i - 1]?.at ? '' : timeText(event.at)}</th>
              <td className={event.kind === 'rule' ? room.rule : undefined}>
                <TextButton title="the network on the map as it was then" onClick={() => show(event.at, event)}>
                  {event.text}
                </TextButton>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {hasEarlier && (
        <TextButton
          onClick={() => {
            setMost(most + SOME);
            if (events.length < most + SOME) void askEarlier(id);
          }}
        >
          what happened before
        </TextButton>
      )}
    </div>
  );
}
