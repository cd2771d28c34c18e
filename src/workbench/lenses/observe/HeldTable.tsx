'use client';
/** Where the network is other than designed: the worst first; what is there is taken over row by row, or all of it. */
import { useState } from 'react';
import { counted } from '../../../core/base/words';
import { allTakenOver } from '../../../core/exchange/observation/compare/allTaken';
import type { Comparison } from '../../../core/exchange/observation/compare/compare';
import type { Difference } from '../../../core/exchange/observation/compare/difference';
import { readObservation } from '../../../core/exchange/observation/observation';
import { fileNameOf } from '../../../core/model/derive/write';
import { useFollowing, useWorkbench } from '../../state/context';
import { useComparison, useObservation } from '../../state/observation';
import type { Item } from '../../state/selection';
import { FileButton } from '../../ui/FileButton';
import { readText } from '../../ui/readText';
import { TextButton } from '../../ui/TextButton';
import styles from '../../ui/table.module.css';
import { useOfSelection } from '../shared/ofSelection';
import { Differences } from './Differences';
import { DrawIt } from './DrawIt';
import { OnMap } from './OnMap';
import { ReadNetwork } from './ReadNetwork';
import room from './observe.module.css';

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
          Read a file
        </FileButton>
        {observation && (
          <>
            <span>
              <time dateTime={observation.at}>{observation.at.slice(0, 16).replace('T', ' ')}</time>,{' '}
              {counted(observation.switches.length, 'switch', 'switches')} read
              {comparison &&
                `, ${counted(comparison.compared, 'thing')} compared: ${comparison.differences.length === 0 ? 'all is as designed' : counted(comparison.differences.length, 'difference')}`}
            </span>
            <OnMap observation={observation} />
            {comparison && <TakeAll comparison={comparison} refused={setTrouble} />}
            <DrawIt observation={observation} refused={setTrouble} />
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
      <ReadNetwork />
      {observation ? comparison && <OfDesign comparison={comparison} refused={setTrouble} /> : <HowTo />}
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

interface Refusing {
  readonly refused: (why: string | null) => void;
}

function TakeAll({ comparison, refused }: Refusing & { readonly comparison: Comparison }) {
  const design = useFollowing((state) => state.design);
  const act = useWorkbench((state) => state.act);
  const { observation } = useObservation();
  const count = comparison.differences.filter(({ takeOver }) => takeOver).length;
  if (count === 0 || !observation) return null;
  return (
    <TextButton
      does="edit"
      title="makes the design like the network wherever a setting can; one step back undoes it"
      onClick={() => refused(act(...allTakenOver(design, observation)))}
    >
      take all over
    </TextButton>
  );
}

function OfDesign({ comparison, refused }: Refusing & { readonly comparison: Comparison }) {
  const design = useFollowing((state) => state.design);
  const select = useWorkbench((state) => state.select);
  const act = useWorkbench((state) => state.act);
  const { rows, choice } = useOfSelection(comparison.differences, switchesOf);
  if (comparison.differences.length === 0) return <p className={styles.empty}>All that was read is as designed.</p>;
  return (
    <>
      {choice && <div className={styles.filter}>{choice}</div>}
      <Differences
        label="Differences"
        design={design}
        rows={rows}
        expected="Designed"
        place={(row, text) => {
          const place = placeOf(row);
          return place ? <TextButton onClick={() => select(place)}>{text}</TextButton> : text;
        }}
        does={(row) =>
          row.takeOver && (
            <TextButton
              does="edit"
              title="makes the design say what is there"
              onClick={() => refused(act(...row.takeOver!()))}
            >
              take over
            </TextButton>
          )
        }
      />
    </>
  );
}

const switchesOf = ({ switch: sw }: Difference) => (sw === null ? [] : [sw]);

function placeOf({ switch: sw, port, link }: Difference): Item | null {
  if (link !== null) return { kind: 'link', link };
  if (sw === null) return null;
  return port === null ? { kind: 'switch', switch: sw } : { kind: 'port', switch: sw, port };
}
