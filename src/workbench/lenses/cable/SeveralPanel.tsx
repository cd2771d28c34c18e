'use client';
/** Several things at once: one field to set a thing of all that are alike. */
import Button from '@mui/material/Button';
import { useState } from 'react';
import type { Command } from '../../../core/edit/commands';
import { pairThese } from '../../../core/edit/pairing';
import type { Result } from '../../../core/base/result';
import { stackTogether } from '../../../core/edit/stacking';
import type { Design } from '../../../core/model/document';
import type { SwitchId } from '../../../core/model/ids';
import type { Alignment } from '../../state/align';
import { useWorkbench, useWorkbenchStore } from '../../state/context';
import { lineUp, removeSelected } from '../../state/editing';
import type { Chosen } from '../../state/subject';
import { ChoiceSetting, TextSetting } from '../../ui/fields';
import styles from '../../ui/panel.module.css';
import * as read from '../../ui/read';
import { choiceOf, textOf } from '../../ui/several';
import { TextButton } from '../../ui/TextButton';
import { counted } from '../../../core/base/words';
import { PortFields } from './PortFields';
import { SwitchFields } from './SwitchFields';

/** Switches that are there become one stack, or a pair; or why not. */
function ActAsOne({ ids }: { readonly ids: readonly SwitchId[] }) {
  const store = useWorkbenchStore();
  const act = useWorkbench((state) => state.act);
  const [refused, setRefused] = useState<{ readonly of: string; readonly why: string } | null>(null);
  const key = ids.join();
  const make = (how: (design: Design, ids: readonly SwitchId[]) => Result<Command[], string>) => () => {
    const commands = how(store.getState().design, ids);
    const why = commands.ok ? act(...commands.value) : commands.error;
    setRefused(why === null ? null : { of: key, why });
    if (why === null) store.getState().select({ kind: 'switch', switch: ids[0]! });
  };
  return (
    <>
      <div className={styles.buttons}>
        <Button
          variant="outlined"
          title="The first keeps its name and settings; cables between them become stack cables"
          onClick={make(stackTogether)}
        >
          Make them one stack
        </Button>
        {ids.length === 2 && (
          <Button
            variant="outlined"
            title="The first is primary; cables between them become the peer link, and single cables that others have to both become bundles"
            onClick={make(pairThese)}
          >
            Make them a pair
          </Button>
        )}
      </div>
      {refused?.of === key && (
        <p className={styles.fault} role="alert">
          {refused.why}
        </p>
      )}
    </>
  );
}

const ALIGNMENTS: readonly (readonly [Alignment, string, number])[] = [
  ['row', 'in a row', 2],
  ['column', 'in a column', 2],
  ['spread-across', 'spread across', 3],
  ['spread-down', 'spread down', 3],
];

export function SeveralPanel({ chosen: { switches, links, linkPorts, ports, hosts } }: { readonly chosen: Chosen }) {
  const store = useWorkbenchStore();
  const act = useWorkbench((state) => state.act);
  return (
    <>
      {switches.length > 0 && (
        <section className={styles.section} aria-label="Settings of the selected switches">
          <h3>{counted(switches.length, 'switch', 'switches')}</h3>
          <SwitchFields switches={switches} />
          <TextSetting
            label="Priority, all trees"
            {...textOf(
              switches.map((sw) => sw.priority),
              String,
            )}
            read={read.bridgePriority}
            commit={(priority) =>
              act(
                ...switches.map((sw): Command => ({ do: 'set-bridge-priority', switch: sw.id, tree: null, priority })),
              )
            }
          />
          {switches.length > 1 && <ActAsOne ids={switches.map(({ id }) => id)} />}
          {switches.length > 1 && (
            <p className={styles.sub}>
              Line up:{' '}
              {ALIGNMENTS.filter(([, , least]) => switches.length >= least).map(([how, label]) => (
                <TextButton does="edit" key={how} onClick={() => lineUp(store.getState(), how)}>
                  {label}
                </TextButton>
              ))}
            </p>
          )}
        </section>
      )}
      {links.length > 0 && (
        <section className={styles.section} aria-label="Settings of the selected links">
          <h3>{counted(links.length, 'link')}, both ends</h3>
          <ChoiceSetting
            label="Cable"
            {...choiceOf(
              links.map((link): 'up' | 'cut' => (link.up ? 'up' : 'cut')),
              [
                ['up', 'Up'],
                ['cut', 'Cut'],
              ],
            )}
            commit={(to) => act(...links.map((link): Command => ({ do: 'set-link', link: link.id, up: to === 'up' })))}
          />
          <PortFields ports={linkPorts} withEdge={false} />
        </section>
      )}
      {ports.length > 0 && (
        <section className={styles.section} aria-label="Settings of the selected ports">
          <h3>{counted(ports.length, 'port')}</h3>
          <PortFields ports={ports} />
        </section>
      )}
      {hosts.length > 0 && (
        <section className={styles.section} aria-label="Settings of the selected hosts">
          <h3>{counted(hosts.length, 'host')}</h3>
          <TextSetting
            label="VLAN"
            {...textOf(
              hosts.map((host) => host.vlan),
              String,
            )}
            read={read.vlan}
            commit={(vlan) => act(...hosts.map((host): Command => ({ do: 'set-host', host: host.id, vlan })))}
          />
        </section>
      )}
      <div className={styles.buttons}>
        <Button variant="outlined" color="error" onClick={() => removeSelected(store.getState())}>
          Remove all of these
        </Button>
      </div>
    </>
  );
}
