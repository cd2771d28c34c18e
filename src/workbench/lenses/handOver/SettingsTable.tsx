'use client';
/** The settings of a switch in an open form, as its files will be, with what the form cannot say; saved one by one or all together. */
import Button from '@mui/material/Button';
import { useState } from 'react';
import { counted } from '../../../core/base/words';
import { FORMS, LEFT_OUT, leftOutText } from '../../../core/exchange/settings/forms';
import { formsOf } from '../../../core/exchange/templates/form';
import { WHOLES } from '../../../core/exchange/wholes';
import { fileStemOf } from '../../../core/model/derive/write';
import { useFollowing } from '../../state/context';
import { useLibrary } from '../../state/library';
import { saveAll } from '../../ui/saveAll';
import { saveFile } from '../../ui/saveFile';
import { Select } from '../../ui/Select';
import styles from '../../ui/table.module.css';
import { fromThere, useEarlier } from '../shared/useEarlier';
import { FilesView } from './FilesView';
import room from './handOver.module.css';
import { useSwitchOf } from './useSwitchOf';
import { useRevision, useWritten } from './useWritten';

/** In place of a revision to begin with. */
const WHOLE = 'whole';

export function SettingsTable() {
  const design = useFollowing((state) => state.design);
  const [key, setKey] = useState(FORMS[0]!.key);
  const [since, setSince] = useState(WHOLE);
  const earlier = useEarlier();
  const library = useLibrary();
  const offered = [...formsOf(design, library.templates), ...WHOLES];
  const form = offered.find((each) => each.key === key) ?? FORMS[0]!;
  const differs = since !== WHOLE && !WHOLES.some((each) => each.key === form.key);
  const before = useRevision(differs ? Number(since) : null);
  const { switches, whole, fault } = useWritten(design, library.templates, form.key, differs ? before.design : null);
  const { own, choose } = useSwitchOf(switches, (each) => each.switch);
  if (design.switches.length === 0)
    return <p className={styles.empty}>There is no switch yet: what is set at switches can be saved here then.</p>;
  const waits = differs && !before.design;
  const files = whole ? [whole] : waits ? [] : (own?.files ?? []);
  const saveOne = () =>
    files.length === 1
      ? saveFile(files[0]!.name, form.type, files[0]!.text)
      : saveAll(`${fileStemOf(design)}-${fileWord(form.key)}-${own!.switch}`, files);
  const saveEvery = () => {
    const leftOut = leftOutText(switches);
    saveAll(`${fileStemOf(design)}-${fileWord(form.key)}`, [
      ...switches.flatMap((each) => each.files),
      ...(leftOut === '' ? [] : [{ name: LEFT_OUT, text: leftOut }]),
    ]);
  };
  return (
    <>
      <div className={styles.filter}>
        <label>
          As{' '}
          <Select
            label="Form"
            value={form.key}
            options={offered.map((each) => [each.key, each.name])}
            choose={setKey}
            title={form.says}
          />
        </label>
        {!whole && (
          <Select<string>
            label="What of it"
            value={since}
            options={[[WHOLE, 'all that is set'], ...(earlier ?? []).map(fromThere)]}
            choose={setSince}
            title="all that is set, or only what differs from an earlier revision"
          />
        )}
        {own && !whole && !waits && (
          <label>
            of{' '}
            <Select<string>
              label="Switch"
              value={own.switch}
              options={switches.map((each) => [each.switch, each.of])}
              choose={choose}
            />
          </label>
        )}
        <Button size="small" variant="outlined" disabled={files.length === 0} onClick={saveOne}>
          {files.length > 1 ? `Save these ${files.length} files` : 'Save this file'}
        </Button>
        {!whole && (
          <Button size="small" variant="outlined" disabled={waits || switches.length === 0} onClick={saveEvery}>
            Save all {counted(switches.length, 'switch', 'switches')}
          </Button>
        )}
        <span>
          {form.says}
          {differs && ' In a safe order, step by step: Change plan, in Prove.'}
        </span>
        {(before.trouble ?? fault ?? library.trouble) !== null && (
          <span className={styles.fault} role="alert">
            {before.trouble ?? fault ?? library.trouble}
          </span>
        )}
      </div>
      {differs && before.design && switches.length === 0 ? (
        <p className={styles.empty}>Nothing that {form.name} can say differs from that revision.</p>
      ) : (
        <div className={room.room}>
          {own && !whole && (
            <section className={room.left} aria-label="What the form cannot say">
              <h3>
                {own.leftOut.length === 0
                  ? 'Everything that is set is said'
                  : `${counted(own.leftOut.length, 'thing')} that ${form.name} cannot say`}
              </h3>
              <ul>
                {own.leftOut.map((sentence) => (
                  <li key={sentence}>{sentence}</li>
                ))}
              </ul>
            </section>
          )}
          <FilesView files={files} />
        </div>
      )}
    </>
  );
}

/** `template:worklist` has a sign that file names do not take everywhere. */
const fileWord = (key: string): string => key.replaceAll(/[^A-Za-z0-9_.-]/g, '-');
