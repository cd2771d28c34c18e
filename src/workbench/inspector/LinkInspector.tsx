'use client';
/** A link: what each end is in the shown trees and why, cut or up, its speed. */
import Button from '@mui/material/Button';
import type { LinkId } from '../../core/model/ids';
import type { LinkEnd } from '../../core/model/document';
import { explainPort } from '../../core/tree/explain/explain';
import { TextButton } from '../ui/TextButton';
import { useWorkbench } from '../state/context';
import { speedText } from '../ui/words/units';
import { ChoiceSetting, TextSetting } from '../ui/fields';
import styles from '../ui/panel.module.css';
import { CarriageFields, type PlacedPort } from './PortFields';
import * as read from '../ui/read';
import { BundleThese } from '../lenses/bundle/BundleThese';
import { bridgePortOf } from '../../core/topology/network';
import { BreakLink } from './BreakHere';
import { SteerHere } from './SteerHere';
import { WhyTrees } from './WhyTrees';

export function LinkInspector({ id }: { readonly id: LinkId }) {
  const link = useWorkbench((state) => state.design.links.find((l) => l.id === id));
  const switches = useWorkbench((state) => state.design.switches);
  const act = useWorkbench((state) => state.act);
  const lens = useWorkbench((state) => state.lens);
  const select = useWorkbench((state) => state.select);
  if (!link) return null;
  const nameOf = (end: LinkEnd) => switches.find((sw) => sw.id === end.switch)?.name ?? end.switch;
  const portOf = (end: LinkEnd) =>
    switches.find((sw) => sw.id === end.switch)?.ports.find((port) => port.id === end.port);
  const [speedA, speedB] = [portOf(link.a)?.speed ?? 0, portOf(link.b)?.speed ?? 0];
  const bothEnds = [link.a, link.b].flatMap((at): PlacedPort[] => {
    const port = portOf(at);
    return port ? [{ switch: at.switch, port }] : [];
  });
  const end = (at: LinkEnd) => (
    <TextButton onClick={() => select({ kind: 'port', switch: at.switch, port: at.port })}>
      {nameOf(at)} port {at.port}
    </TextButton>
  );
  return (
    <>
      <div className={styles.title}>
        <h2>Link</h2>
      </div>
      <p className={styles.sub}>
        {end(link.a)} to {end(link.b)}
      </p>
      {lens === 'Bundle' && <BundleThese links={[id]} />}
      {lens === 'Break' && <BreakLink link={link} />}
      {lens === 'Steer' && <SteerHere wish={{ wants: 'carry', link: id }} />}
      <WhyLink a={link.a} b={link.b} nameOf={nameOf} />
      <section className={styles.section}>
        <h3>The cable and both its ends</h3>
        <ChoiceSetting
          label="Cable"
          value={link.up ? 'up' : 'cut'}
          options={[
            ['up', 'Up'],
            ['cut', 'Cut'],
          ]}
          commit={(to) => act({ do: 'set-link', link: id, up: to === 'up' })}
        />
        <TextSetting
          label="Speed, both ends"
          value={speedA === speedB ? speedText(speedA) : ''}
          placeholder={`${speedText(speedA)} and ${speedText(speedB)}`}
          read={read.speed}
          commit={(speed) => act({ do: 'set-link', link: id, speed })}
        />
        <TextSetting
          label="Delay, one way"
          value={link.delay === undefined ? '' : String(link.delay)}
          placeholder="short cable, 5"
          adornment="µs"
          read={read.linkDelay}
          commit={(delay) => act({ do: 'set-link', link: id, delay })}
        />
        <CarriageFields ports={bothEnds} />
        <div className={styles.buttons}>
          <Button variant="outlined" color="error" onClick={() => act({ do: 'remove-link', link: id })}>
            Unplug this cable
          </Button>
        </div>
      </section>
    </>
  );
}

/** What both ends are in each shown tree. */
function WhyLink({
  a,
  b,
  nameOf,
}: {
  readonly a: LinkEnd;
  readonly b: LinkEnd;
  readonly nameOf: (end: LinkEnd) => string;
}) {
  const settled = useWorkbench((state) => state.lens === 'Break');
  return (
    <WhyTrees title={settled ? 'Why, before anything happens' : 'Why'}>
      {(tree, solution) =>
        [a, b].map((end, i) => {
          const { network } = solution;
          const p = bridgePortOf(network, network.portIndexOf(end.switch, end.port));
          const why = p < 0 ? null : explainPort(solution, tree, p);
          return (
            <p key={i}>
              <b>
                {nameOf(end)} port{' '}
                {p >= 0 && network.ports[p]!.id !== end.port ? `${end.port}, bundle ${network.ports[p]!.id}` : end.port}
                .
              </b>{' '}
              {why?.sentence ?? 'Not in this tree.'}
            </p>
          );
        })
      }
    </WhyTrees>
  );
}
