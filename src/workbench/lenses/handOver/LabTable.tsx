'use client';
/** How a lab of real switches is run, and what one has found: read from its file, each difference with its place on the map. */
import { useState } from 'react';
import { counted } from '../../../core/base/words';
import { labTree, LAB_SYSTEMS, labDesign, type LabSystem } from '../../../core/exchange/lab/labDesign';
import { readLabResult, type LabResult, type LabRound } from '../../../core/exchange/lab/result';
import { fileNameOf } from '../../../core/model/derive/write';
import type { Design } from '../../../core/model/document';
import { treeName, type TreeId } from '../../../core/model/ids';
import { namesOf } from '../../../core/model/derive/names';
import { useFollowing, useWorkbench } from '../../state/context';
import { switchesIn, type Item } from '../../state/selection';
import { FileButton } from '../../ui/FileButton';
import { readText } from '../../ui/readText';
import { Select } from '../../ui/Select';
import { TextButton } from '../../ui/TextButton';
import styles from '../../ui/table.module.css';
import room from './handOver.module.css';

const SYSTEM_NAMES: Readonly<Record<LabSystem, string>> = { linux: "the kernel's bridge", ovs: 'Open vSwitch' };

export function LabTable() {
  const design = useFollowing((state) => state.design);
  const [system, setSystem] = useState<LabSystem>('ovs');
  const [result, setResult] = useState<LabResult | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  if (design.switches.length === 0)
    return <p className={styles.empty}>There is no switch yet: a lab builds them of real ones then.</p>;
  const read = async (file: File | undefined) => {
    if (!file) return;
    const text = await readText(file);
    const found = text.ok ? readLabResult(text.value) : text;
    setResult(found.ok ? found.value : null);
    setTrouble(found.ok ? null : found.error);
  };
  return (
    <>
      <div className={styles.filter}>
        <label>
          A lab of{' '}
          <Select
            label="Real switches"
            value={system}
            options={LAB_SYSTEMS.map((each) => [each, SYSTEM_NAMES[each]])}
            choose={setSystem}
          />
        </label>
        <FileButton label="Result of a lab" accept=".json" read={([file]) => void read(file)}>
          Read a result
        </FileButton>
        <span>Built from the files of the Settings table, on a Linux machine, as root.</span>
        {trouble && (
          <span className={styles.fault} role="alert">
            {trouble}
          </span>
        )}
      </div>
      <div className={room.room}>
        <HowTo design={design} system={system} />
        {result && <Found design={design} result={result} />}
      </div>
    </>
  );
}

function HowTo({ design, system }: { readonly design: Design; readonly system: LabSystem }) {
  const selection = useWorkbench((state) => state.selection);
  const chosen = switchesIn(selection);
  // One at least is to be real.
  const joined = chosen.length < design.switches.length ? chosen : [];
  const { leftOut } = labDesign(design, system, labTree(design), { joined: new Set(joined) });
  const join = joined.length > 0 ? ` \\\n  --join ${joined.join(',')}` : '';
  const file = fileNameOf(design);
  return (
    <section className={room.how} aria-label="How a lab is run">
      <p>Save the design as a file, and there:</p>
      <pre
        className={room.text}
        tabIndex={0}
      >{`npx knot-path lab \\\n  ${file} \\\n  --with ${system}${join} --out lab.json`}</pre>
      <p>
        <code>--scenario</code> plays one and looks again, <code>--keep</code> leaves it standing with a shell for each
        host, <code>lab stop</code> takes it away.
      </p>
      <p>
        <code>--join</code> keeps switches in the simulator, in real time, and cables them to the real ones: those that
        are selected on the map.
      </p>
      {leftOut.length > 0 && (
        <>
          <h3>Left out of this design there</h3>
          <ul>
            {leftOut.map((sentence) => (
              <li key={sentence}>{sentence}</li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}

function Found({ design, result }: { readonly design: Design; readonly result: LabResult }) {
  const differences = result.rounds.reduce((sum, round) => sum + round.differences.length, 0);
  return (
    <section className={room.found} aria-label="What the lab found">
      <p>
        {SYSTEM_NAMES[result.with]}, {result.tree === null ? 'no tree' : treeName(result.tree as TreeId)}, begun{' '}
        <time dateTime={result.at}>{result.at.slice(0, 16).replace('T', ' ')}</time>:{' '}
        <b>{differences === 0 ? 'all is as we say' : `${counted(differences, 'thing')} otherwise than we say`}</b>.
        {result.simulated && result.simulated.length > 0 && ` Simulated: ${result.simulated.join(', ')}.`}
        {result.name !== design.name && <em> It is a result of “{result.name}”.</em>}
      </p>
      {result.rounds.map((round, i) => (
        <Round key={i} design={design} round={round} />
      ))}
    </section>
  );
}

function Round({ design, round }: { readonly design: Design; readonly round: LabRound }) {
  const select = useWorkbench((state) => state.select);
  const names = namesOf(design);
  return (
    <>
      <h3>
        {round.after}: {counted(round.compared, 'thing')} compared after {round.seconds} s,{' '}
        {counted(round.differences.length, 'difference')}
      </h3>
      {round.differences.length > 0 && (
        <table className={room.differences}>
          <thead>
            <tr>
              <th scope="col">Where</th>
              <th scope="col">What</th>
              <th scope="col">There</th>
              <th scope="col">We say</th>
            </tr>
          </thead>
          <tbody>
            {round.differences.map((each, i) => {
              const place = placeOf(design, each);
              const where = place
                ? place.kind === 'port'
                  ? names.end({ switch: place.switch, port: place.port as never })
                  : names.switch(place.switch)
                : `${each.switch} ${each.interface ?? ''}`;
              return (
                <tr key={i}>
                  <th scope="row">{place ? <TextButton onClick={() => select(place)}>{where}</TextButton> : where}</th>
                  <td>{each.what}</td>
                  <td>{each.there}</td>
                  <td>{each.ours}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
    </>
  );
}

/** Where a difference is; null where the design has no such place any more. */
function placeOf(
  design: Design,
  { switch: id, interface: name }: LabRound['differences'][number],
): Extract<Item, { kind: 'switch' | 'port' }> | null {
  const sw = design.switches.find((each) => each.id === id);
  if (!sw) return null;
  const port = sw.ports.find(({ number }) => `port${number}` === name);
  return port ? { kind: 'port', switch: sw.id, port: port.id } : { kind: 'switch', switch: sw.id };
}
