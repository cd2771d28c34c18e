'use client';
/** The settings of a switch in an open form, as its file will be, with what the form cannot say; saved one by one or all together. */
import Button from '@mui/material/Button';
import { strToU8, zipSync } from 'fflate';
import { useMemo, useState } from 'react';
import { FORMS, leftOutText, settingsFiles } from '../../../core/exchange/settings/forms';
import { WHOLES, wholeFile } from '../../../core/exchange/wholes';
import { fileNameOf } from '../../../core/model/derive/write';
import type { SwitchId } from '../../../core/model/ids';
import { useFollowing, useWorkbench } from '../../state/context';
import { itemsOf } from '../../state/selection';
import { saveFile } from '../../ui/saveFile';
import { Select } from '../../ui/Select';
import styles from '../../ui/table.module.css';
import { counted } from '../../ui/words/units';
import room from './handOver.module.css';

export function SettingsTable() {
  const design = useFollowing((state) => state.design);
  const selection = useWorkbench((state) => state.selection);
  const [key, setKey] = useState(FORMS[0]!.key);
  const [chosen, choose] = useState<SwitchId | null>(null);
  const form = [...FORMS, ...WHOLES].find((each) => each.key === key)!;
  const files = useMemo(() => {
    const settings = FORMS.find((each) => each.key === key);
    return settings ? settingsFiles(design, settings) : [];
  }, [design, key]);
  const whole = useMemo(() => {
    const found = WHOLES.find((each) => each.key === key);
    return found ? { ...wholeFile(design, found), leftOut: NOTHING } : null;
  }, [design, key]);
  const selected = itemsOf(selection).flatMap((item) => ('switch' in item ? [item.switch] : []))[0];
  const own = [chosen, selected].flatMap((id) => files.find((each) => each.switch === id) ?? [])[0] ?? files[0];
  const file = whole ?? own;
  if (!file)
    return <p className={styles.empty}>There is no switch yet: what is set at switches can be saved here then.</p>;
  const all = () => {
    const leftOut = leftOutText(files);
    const named = [
      ...files.map(({ name, text }) => [name, text] as const),
      ...(leftOut === '' ? [] : [[LEFT_OUT, leftOut] as const]),
    ];
    const zipped = zipSync(Object.fromEntries(named.map(([name, text]) => [name, strToU8(text)])));
    saveFile(`${stem(design)}-${form.key}.zip`, 'application/zip', zipped);
  };
  return (
    <>
      <div className={styles.filter}>
        <label>
          As{' '}
          <Select
            label="Form"
            value={key}
            options={[...FORMS, ...WHOLES].map((each) => [each.key, each.name])}
            choose={setKey}
            title={form.says}
          />
        </label>
        {own && !whole && (
          <label>
            of{' '}
            <Select<string>
              label="Switch"
              value={own.switch}
              options={files.map((each) => [each.switch, each.of])}
              choose={(id) => choose(id as SwitchId)}
            />
          </label>
        )}
        <Button size="small" variant="outlined" onClick={() => saveFile(file.name, form.type, file.text)}>
          Save this file
        </Button>
        {!whole && (
          <Button size="small" variant="outlined" onClick={all}>
            Save all {files.length}
          </Button>
        )}
        <span>{form.says}</span>
      </div>
      <div className={room.room}>
        {!whole && (
          <section className={room.left} aria-label="What the form cannot say">
            <h3>
              {file.leftOut.length === 0
                ? 'Everything that is set is said'
                : `${counted(file.leftOut.length, 'thing')} that ${form.name} cannot say`}
            </h3>
            <ul>
              {file.leftOut.map((sentence) => (
                <li key={sentence}>{sentence}</li>
              ))}
            </ul>
          </section>
        )}
        <pre className={room.text} tabIndex={0} aria-label={file.name}>
          {file.text}
        </pre>
      </div>
    </>
  );
}

const LEFT_OUT = 'left-out.txt';
const NOTHING: readonly string[] = [];

const stem = (design: Parameters<typeof fileNameOf>[0]): string => fileNameOf(design).replace(/\.knot\.json$/, '');
