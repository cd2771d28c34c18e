'use client';
/** The design as a whole: its settings, and all of it in words. */
import { useState } from 'react';
import { linesOf } from '../../../core/cabling/print';
import { modeForAll, modeOf } from '../../../core/analysis/regions/modeForAll';
import { traitsOf, type Design } from '../../../core/model/document';
import { pathCostOf } from '../../../core/topology/pathCost';
import { TextButton } from '../../ui/TextButton';
import { useWorkbench } from '../../state/context';
import { METHOD_CHOICES, MODE_CHOICES } from '../../ui/words/choices';
import { groupText } from '../../ui/words/units';
import { ChoiceSetting, TextSetting } from '../../ui/fields';
import styles from '../../ui/panel.module.css';
import * as read from '../../ui/read';

export function DesignPanel({ design }: { readonly design: Design }) {
  const act = useWorkbench((state) => state.act);
  const [refused, setRefused] = useState<string | null>(null);
  const [copied, setCopied] = useState('');
  const mode = modeOf(design);
  const copy = () =>
    navigator.clipboard.writeText(linesOf(design).join('\n')).then(
      () => setCopied('copied'),
      () => setCopied('the browser did not allow it'),
    );
  return (
    <>
      {design.notes && <p className={styles.hint}>{design.notes.slice(0, 2000)}</p>}
      <section className={styles.section}>
        <h3>Settings of the design</h3>
        <TextSetting
          label="Name"
          value={design.name}
          read={read.name}
          commit={(name) => act({ do: 'rename-design', name })}
        />
        <ChoiceSetting
          label="Path cost method"
          value={design.pathCost}
          options={METHOD_CHOICES}
          note={refused ?? `1 Gb/s costs ${groupText(pathCostOf(1000, design.pathCost))}`}
          commit={(method) => setRefused(act({ do: 'set-cost-method', method }))}
        />
        <ChoiceSetting
          label="Spanning tree mode"
          value={mode ?? ''}
          options={[...(mode ? [] : [['', 'several'] as const]), ...MODE_CHOICES]}
          note={mode ? traitsOf(mode).says : 'Switches run different modes: choose one for all that run spanning tree.'}
          commit={(to) => to !== '' && act(...modeForAll(design, to))}
        />
      </section>
      {design.switches.length > 0 && (
        <section className={styles.section}>
          <h3>In words</h3>
          <p className={styles.hint}>
            Everything that is plugged in, as lines for the cabling line of this design or another:{' '}
            <TextButton does="plain" onClick={() => void copy()}>
              copy as cabling lines
            </TextButton>{' '}
            {copied}
          </p>
        </section>
      )}
      <section className={styles.section}>
        <h3>What next</h3>
        <p className={styles.hint}>
          Select a switch, a link or a port on the map, or a row of the table: this panel then says why it is as it is,
          and changes it.
        </p>
      </section>
    </>
  );
}
