'use client';
/** Where the network is other than designed: the worst first, each with its place on the map and a likely reason. */
import { useState } from 'react';
import { counted } from '../../../core/base/words';
import type { Comparison } from '../../../core/exchange/observation/compare/compare';
import type { Difference, Harm } from '../../../core/exchange/observation/compare/difference';
import { readObservation } from '../../../core/exchange/observation/observation';
import { fileNameOf } from '../../../core/model/derive/write';
import { namesOf } from '../../../core/model/derive/names';
import { treesName } from '../../../core/model/ids';
import { useFollowing, useWorkbench } from '../../state/context';
import { useComparison, useObservation } from '../../state/observation';
import type { Item } from '../../state/selection';
import { FileButton } from '../../ui/FileButton';
import { readText } from '../../ui/readText';
import { TextButton } from '../../ui/TextButton';
import styles from '../../ui/table.module.css';
import { useOfSelection } from '../shared/ofSelection';
import room from './observe.module.css';

/** Most that are drawn at once. */
const MOST = 400;

const HARM_WORDS: Readonly<Record<Harm, string>> = {
  silent: 'not heard',
  root: 'another root',
  mode: 'mode or region',
  cable: 'cable or signal',
  path: 'another path',
  bundle: 'members',
  vlan: 'VLANs',
  setting: 'setting',
};

export function HeldTable() {
  const { observation, hold } = useObservation();
  const comparison = useComparison();
  const [trouble, setTrouble] = useState<string | null>(null);
  const read = async (file: File | undefined) => {
    if (!file) return;
    const text = await readText(file);
    const found = text.ok ? readObservation(text.value) : text;
    if (found.ok) hold(found.value);
    setTrouble(found.ok ? null : found.error);
  };
  return (
    <>
      <div className={styles.filter}>
        <FileButton label="Observation" accept=".json" read={([file]) => void read(file)}>
          Read an observation
        </FileButton>
        {observation && (
          <>
            <span>
              <time dateTime={observation.at}>{observation.at.slice(0, 16).replace('T', ' ')}</time>,{' '}
              {counted(observation.switches.length, 'switch', 'switches')} read
              {comparison &&
                `, ${counted(comparison.compared, 'thing')} compared: ${comparison.differences.length === 0 ? 'all is as designed' : counted(comparison.differences.length, 'difference')}`}
            </span>
            <TextButton does="plain" onClick={() => hold(null)}>
              put it away
            </TextButton>
          </>
        )}
        {trouble && (
          <span className={styles.fault} role="alert">
            {trouble}
          </span>
        )}
      </div>
      {observation ? comparison && <Differences comparison={comparison} /> : <HowTo />}
    </>
  );
}

function HowTo() {
  const file = fileNameOf(useFollowing((state) => state.design));
  return (
    <section className={room.how} aria-label="How a network is read">
      <p>
        From one switch and its neighbours by SNMP, inside of the networks that you name; nothing is ever written to a
        switch. What it is asked by is kept in a file of its own, and called by a name.
      </p>
      <pre
        className={room.text}
        tabIndex={0}
      >{`npx knot-path observe 192.0.2.1 --within 192.0.2.0/24 \\\n  --credentials main -o observed.json`}</pre>
      <p>With no hardware: the switches of this design, simulated, each at an address of this machine.</p>
      <pre
        className={room.text}
        tabIndex={0}
      >{`npx knot-path agents ${file} --credentials main\nnpx knot-path observe 127.1.0.1 --within 127.1.0.0/16 --port 1161 \\\n  --credentials main -o observed.json`}</pre>
    </section>
  );
}

function Differences({ comparison }: { readonly comparison: Comparison }) {
  const design = useFollowing((state) => state.design);
  const select = useWorkbench((state) => state.select);
  const names = namesOf(design);
  const { rows, choice } = useOfSelection(comparison.differences, switchesOf);
  if (comparison.differences.length === 0) return <p className={styles.empty}>All that was read is as designed.</p>;
  const whereText = ({ switch: sw, port }: Difference): string =>
    sw === null ? 'outside of the design' : port === null ? names.switch(sw) : names.end({ switch: sw, port });
  return (
    <>
      {choice && <div className={styles.filter}>{choice}</div>}
      <div className={room.scroll}>
        <table className={room.differences} aria-label="Differences">
          <thead>
            <tr>
              <th scope="col">Where</th>
              <th scope="col">Harm</th>
              <th scope="col">What</th>
              <th scope="col">Designed</th>
              <th scope="col">There</th>
              <th scope="col">Likely why</th>
            </tr>
          </thead>
          <tbody>
            {rows.slice(0, MOST).map((each, i) => {
              const place = placeOf(each);
              return (
                <tr key={i}>
                  <th scope="row">
                    {place ? <TextButton onClick={() => select(place)}>{whereText(each)}</TextButton> : whereText(each)}
                  </th>
                  <td>{HARM_WORDS[each.harm]}</td>
                  <td>
                    {each.what}
                    {each.trees.length > 0 && `, ${treesName(each.trees)}`}
                  </td>
                  <td>{each.designed}</td>
                  <td>{each.observed}</td>
                  <td>{each.why}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
        {rows.length > MOST && (
          <p className={styles.empty}>and {rows.length - MOST} more; knot-path compare lists all.</p>
        )}
      </div>
    </>
  );
}

const switchesOf = ({ switch: sw }: Difference) => (sw === null ? [] : [sw]);

function placeOf({ switch: sw, port, link }: Difference): Item | null {
  if (link !== null) return { kind: 'link', link };
  if (sw === null) return null;
  return port === null ? { kind: 'switch', switch: sw } : { kind: 'port', switch: sw, port };
}
