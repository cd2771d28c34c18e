'use client';
/** Several things at once: what they agree on, and one field to set it for all. */
import Button from '@mui/material/Button';
import { useMemo } from 'react';
import type { Command } from '../../core/edit/commands';
import type { Design, Host } from '../../core/model/document';
import type { Wish } from '../../core/analysis/steering/wishes';
import { lineUp, removeSelected } from '../state/editing';
import { TextButton } from '../ui/TextButton';
import type { Alignment } from '../state/align';
import { useWorkbench, useWorkbenchStore } from '../state/context';
import type { Item } from '../state/selection';
import { counted } from '../ui/words/units';
import { ChoiceSetting, TextSetting } from '../ui/fields';
import styles from '../ui/panel.module.css';
import { PortFields, type PlacedPort } from './PortFields';
import * as read from '../ui/read';
import { choiceOf, textOf } from '../ui/several';
import { RegionSection } from '../lenses/group/RegionSection';
import { BundleThese } from '../lenses/bundle/BundleThese';
import { AddWishes } from './SteerHere';
import { SwitchFields } from './SwitchFields';

interface Chosen {
  readonly switches: Design['switches'];
  readonly links: Design['links'];
  readonly linkPorts: readonly PlacedPort[];
  readonly ports: readonly PlacedPort[];
  readonly hosts: readonly Host[];
}

function chosenOf(design: Design, items: readonly Item[]): Chosen {
  const ids = new Set(
    items.map((item) =>
      item.kind === 'port'
        ? `port ${item.switch}\n${item.port}`
        : item.kind === 'switch'
          ? `switch ${item.switch}`
          : item.kind === 'link'
            ? `link ${item.link}`
            : `host ${item.host}`,
    ),
  );
  const links = design.links.filter((link) => ids.has(`link ${link.id}`));
  const ends = new Set(links.flatMap(({ a, b }) => [a, b]).map((end) => `${end.switch}\n${end.port}`));
  const placed = design.switches.flatMap((sw) => sw.ports.map((port): PlacedPort => ({ switch: sw.id, port })));
  return {
    links,
    switches: design.switches.filter((sw) => ids.has(`switch ${sw.id}`)),
    linkPorts: placed.filter((each) => ends.has(`${each.switch}\n${each.port.id}`)),
    ports: placed.filter((each) => ids.has(`port ${each.switch}\n${each.port.id}`)),
    hosts: design.hosts.filter((host) => ids.has(`host ${host.id}`)),
  };
}

const ALIGNMENTS: readonly (readonly [Alignment, string, number])[] = [
  ['row', 'in a row', 2],
  ['column', 'in a column', 2],
  ['spread-across', 'spread across', 3],
  ['spread-down', 'spread down', 3],
];

export function SeveralInspector({ items }: { readonly items: readonly Item[] }) {
  const store = useWorkbenchStore();
  const design = useWorkbench((state) => state.design);
  const act = useWorkbench((state) => state.act);
  const { switches, links, linkPorts, ports, hosts } = useMemo(() => chosenOf(design, items), [design, items]);
  const steering = useWorkbench((state) => state.lens === 'Steer');
  const grouping = useWorkbench((state) => state.lens === 'Group');
  const bundling = useWorkbench((state) => state.lens === 'Bundle' || state.lens === 'Cable');
  const cabled = new Set(design.links.flatMap(({ a, b }) => [a, b]).map((end) => `${end.switch}\n${end.port}`));
  const wishes = [
    ...links.map((link): Wish => ({ wants: 'carry', link: link.id })),
    ...ports
      .filter((each) => cabled.has(`${each.switch}\n${each.port.id}`))
      .map((each): Wish => ({ wants: 'block', switch: each.switch, port: each.port.id })),
  ];
  const parts = [
    [switches.length, 'switch', 'switches'],
    [links.length, 'link', 'links'],
    [ports.length, 'port', 'ports'],
    [hosts.length, 'host', 'hosts'],
  ] as const;
  const kinds = parts.flatMap(([n, one, many]) => (n > 0 ? [counted(n, one, many)] : []));
  return (
    <>
      <div className={styles.title}>
        <h2>{kinds.length === 1 ? kinds[0] : counted(items.length, 'thing')} selected</h2>
      </div>
      <p className={styles.sub}>
        {kinds.length > 1 && `${kinds.join(', ')}. `}A value set here is set for all{kinds.length > 1 && ' of its kind'}
        .
      </p>
      {links.length > 0 && bundling && <BundleThese links={links.map((link) => link.id)} />}
      {switches.length > 0 && grouping && <RegionSection switches={switches} />}
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
          {switches.length > 1 && (
            <p className={styles.sub}>
              Line up:{' '}
              {ALIGNMENTS.filter(([, , least]) => switches.length >= least).map(([how, label]) => (
                <TextButton key={how} onClick={() => lineUp(store.getState(), how)}>
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
      {steering && wishes.length > 0 && (
        <section className={styles.section} aria-label="Steer">
          <h3>{wishesTitle(links.length, wishes.length - links.length)}</h3>
          <div className={styles.buttons}>
            <AddWishes wishes={wishes} />
          </div>
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

/** `Carry the frames on 2 links, block at 1 port`. */
function wishesTitle(links: number, ports: number): string {
  const parts = [
    links > 0 && `carry the frames on ${counted(links, 'link')}`,
    ports > 0 && `block at ${counted(ports, 'port')}`,
  ]
    .filter(Boolean)
    .join(', ');
  return parts[0]!.toUpperCase() + parts.slice(1);
}
