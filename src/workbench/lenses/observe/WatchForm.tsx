'use client';
/** How a network is watched: how often, by which rules, who is told, and how much is kept. */
import Button from '@mui/material/Button';
import { useState } from 'react';
import { watchSettingsSchema, type WatchSettings, type WatchView } from '../../../contract/observe';
import { fail, ok, type Result } from '../../../core/base/result';
import { RULE_EXAMPLES, readRule } from '../../../core/exchange/observation/watch/rules';
import { api } from '../../state/api';
import { useWorkbench } from '../../state/context';
import { refreshWatch } from '../../state/watching';
import { TextButton } from '../../ui/TextButton';
import styles from '../../ui/table.module.css';
import room from './observe.module.css';
import { TypedField } from './TypedField';
import { SourceFields, sourceIn, useSource, type TypedSource } from './SourceFields';

interface Typed {
  readonly every: string;
  readonly rules: string;
  readonly webhook: string;
  readonly syslog: string;
  readonly days: string;
  readonly mib: string;
}

const typed = (settings: WatchSettings | null): Typed => ({
  every: String(settings?.every ?? 30),
  rules: settings?.rules.join('\n') ?? '',
  webhook: settings?.webhook ?? '',
  syslog: settings?.syslog ?? '',
  days: String(settings?.days ?? 30),
  mib: String(settings?.mib ?? 200),
});

const WANTED = {
  every: 'Every: wanted is a number of seconds from 5 to 3600.',
  webhook: 'Webhook: wanted is an address that begins with http:// or https://.',
  syslog: 'Syslog: wanted is a host, or a host and a port, such as 192.0.2.9:514.',
  days: 'Kept for: wanted is a number of days from 1 to 3650.',
  mib: 'At most: wanted is a number of MiB from 1 to 100000.',
} as const;

function settingsIn(source: TypedSource, own: Typed): Result<WatchSettings, string> {
  const from = sourceIn(source);
  if (!from.ok) return from;
  const rules = own.rules.split('\n').flatMap((line) => (line.trim() === '' ? [] : [line.trim()]));
  for (const line of rules) {
    const rule = readRule(line);
    if (!rule.ok) return fail(`Rules: ${rule.error}.`);
  }
  const read = watchSettingsSchema.safeParse({
    ...{ on: true, source: from.value, every: Number(own.every), rules },
    ...{ webhook: own.webhook.trim() || null, syslog: own.syslog.trim() || null },
    ...{ days: Number(own.days), mib: Number(own.mib) },
  });
  if (read.success) return ok(read.data);
  const [field] = read.error.issues[0]!.path;
  return fail(WANTED[field as keyof typeof WANTED]);
}

export function WatchForm({ view, done }: { readonly view: WatchView; readonly done: () => void }) {
  const id = useWorkbench((state) => state.id);
  const [source, setSource] = useSource(view);
  const [own, setOwn] = useState(() => typed(view.settings));
  const [trouble, setTrouble] = useState<string | null>(null);
  const start = async () => {
    const settings = settingsIn(source, own);
    if (!settings.ok) return setTrouble(settings.error);
    const set = await api.setWatch(id, settings.value);
    setTrouble(set.ok ? null : set.error.message);
    await refreshWatch(id);
    if (set.ok) done();
  };
  const demo = async () => {
    const set = await api.watchDemo(id);
    setTrouble(set.ok ? null : set.error.message);
    await refreshWatch(id);
    if (set.ok) done();
  };
  const field = (key: keyof Typed, label: string, unit: string, width: string, hint = '') => (
    <TypedField
      {...{ label, unit, hint, width }}
      value={own[key]}
      change={(value) => setOwn({ ...own, [key]: value })}
    />
  );
  return (
    <form
      className={room.form}
      aria-label="Watch"
      onSubmit={(event) => {
        event.preventDefault();
        void start();
      }}
    >
      <div className={room.line}>
        <SourceFields source={source} change={setSource} names={view.credentials} />
        {field('every', 'Every', 's', '4em')}
      </div>
      <div className={room.line}>
        <label className={room.rules}>
          Rules, one a line
          <textarea
            className={styles.input}
            rows={3}
            placeholder={RULE_EXAMPLES.slice(0, 3).join('\n')}
            value={own.rules}
            onChange={(event) => setOwn({ ...own, rules: event.target.value })}
          />
        </label>
        <div className={room.others}>
          {field('webhook', 'Webhook', '', '17em', 'https://notices.example/knot')}
          {field('syslog', 'Syslog', '', '12em', '192.0.2.9:514')}
          {field('days', 'Kept for', 'days', '4.5em')}
          {field('mib', 'at most', 'MiB', '5em')}
        </div>
      </div>
      <div className={room.line}>
        <Button size="small" variant="contained" type="submit" disabled={view.credentials.length === 0}>
          Watch it
        </Button>
        <TextButton
          does="edit"
          title="the switches of this design, simulated by the server, with its scenarios one after the other"
          onClick={() => void demo()}
        >
          watch a demo, with no hardware
        </TextButton>
        {view.trouble && <span>{view.trouble}</span>}
        {trouble !== null && (
          <span className={styles.fault} role="alert">
            {trouble}
          </span>
        )}
      </div>
    </form>
  );
}
