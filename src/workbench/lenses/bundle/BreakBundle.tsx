'use client';
/** What may happen to a bundle on the clock: a member lost, all of them, another mode at this end. */
import Button from '@mui/material/Button';
import { MAX_UNTIL, type Action, type Undated } from '../../../core/model/scenario';
import type { Bundle, BundleMode } from '../../../core/model/document';
import { mayBeShut } from '../../../core/topology/shut';
import { ChoiceSetting } from '../../ui/fields';
import styles from '../../ui/panel.module.css';
import { EMPTY, useClockStore } from '../../state/clock';
import { useWorkbench, useWorkbenchStore } from '../../state/context';
import { MODE_CHOICES } from './words';

/** Slow LACP notices a silent partner after 90 seconds and three more: a run shows all of it. */
const LONG = 130;

export function BreakBundle({ bundle }: { readonly bundle: Bundle }) {
  const links = useWorkbench((state) => state.design.links);
  const sw = useWorkbench((state) => state.design.switches.find((each) => each.id === bundle.switch));
  const breaking = useWorkbench((state) => state.lens === 'Break');
  const clock = useClockStore();
  const store = useWorkbenchStore();
  const cables = bundle.ports.flatMap((port) =>
    links
      .filter((link) => link.up && [link.a, link.b].some((end) => end.switch === bundle.switch && end.port === port))
      .map((link) => ({ port, link })),
  );
  const happen = (whats: readonly Undated[]) => {
    const { nextAt, scenario } = clock.getState();
    const at = breaking ? nextAt : 1;
    const actions = whats.map((what) => ({ ...what, at }) as Action);
    if (breaking)
      clock.getState().change({
        actions: [...scenario.actions, ...actions].sort((a, b) => a.at - b.at),
        until: Math.max(scenario.until, Math.min(MAX_UNTIL, at + LONG)),
      });
    else clock.getState().open({ ...EMPTY, actions, until: LONG });
    clock.getState().setNextAt(at + 10);
    store.getState().setLens('Break');
    store.getState().openDrawer('clock');
  };
  const cut = ({ link }: (typeof cables)[number], light: boolean): Undated => ({
    do: 'link-down',
    link: link.id,
    between: { a: link.a, b: link.b },
    light,
  });
  return (
    <section className={styles.section} aria-label="On the timeline">
      <h3>{breaking ? 'What happens to this bundle' : 'Try it on the timeline'}</h3>
      <ChoiceSetting
        label="This end becomes"
        value={bundle.mode}
        options={MODE_CHOICES.map(([mode, text]): readonly [BundleMode, string] => [
          mode,
          mode === bundle.mode ? `${text}, as it is` : text,
        ])}
        commit={(mode) => mode !== bundle.mode && happen([{ do: 'bundle-mode', bundle: bundle.id, mode }])}
      />
      <div className={styles.buttons}>
        {cables.map((each) => (
          <Button
            key={each.port}
            size="small"
            variant="outlined"
            onClick={() => happen([cut(each, true)])}
          >{`Port ${each.port} goes down`}</Button>
        ))}
        {cables.length > 1 && (
          <Button size="small" variant="outlined" onClick={() => happen(cables.map((each) => cut(each, true)))}>
            All members go down
          </Button>
        )}
        {cables[0] && (
          <Button
            size="small"
            variant="outlined"
            title="As with a media converter in between: only missing LACPDUs tell"
            onClick={() => happen([cut(cables[0]!, false)])}
          >{`Port ${cables[0].port} fails; the other port stays up`}</Button>
        )}
        {breaking && sw && mayBeShut(bundle, sw) && (
          <Button
            size="small"
            variant="outlined"
            title="As long as a guard keeps it shut"
            onClick={() => happen([{ do: 'open-port', switch: sw.id, port: bundle.id }])}
          >
            Somebody opens it again
          </Button>
        )}
      </div>
    </section>
  );
}
