'use client';
/** What happens to the thing that is selected, and when: each button puts an action into the scenario and runs it. */
import { NumberField } from '../../ui/NumberField';
import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import { FreshNames } from '../../../core/edit/fresh';
import type { BridgePortId, SwitchId } from '../../../core/model/ids';
import { freePortsOf } from '../../../core/model/plugs';
import { MAX_UNTIL, type Action, type Undated } from '../../../core/model/scenario';
import type { Design, Link, Switch } from '../../../core/model/document';
import { mayBeShut } from '../../../core/topology/shut';
import { scenarioDesign } from '../../../core/sim/scenario/scenario';
import { loopedSwitch, newSwitch, strangersSwitch } from './newSwitch';
import { useClock } from '../../state/clock';
import { useWorkbench } from '../../state/context';
import { TextSetting } from '../../ui/fields';
import styles from '../../ui/panel.module.css';
import * as read from '../../ui/read';
import { Select } from '../../ui/Select';

function useHappen(): (what: Undated) => null {
  const add = useClock((clock) => clock.addAction);
  const at = useClock((clock) => clock.nextAt);
  const setNextAt = useClock((clock) => clock.setNextAt);
  const openDrawer = useWorkbench((state) => state.openDrawer);
  return (what) => {
    add({ ...what, at } as Action);
    setNextAt(Math.min(MAX_UNTIL, at + 10));
    openDrawer('clock');
    return null;
  };
}

/** The design with what the scenario has brought along so far: names and ports that are taken. */
function useStage(): Design {
  const design = useWorkbench((state) => state.design);
  const scenario = useClock((clock) => clock.scenario);
  return useMemo(() => {
    const staged = scenarioDesign(design, scenario);
    return staged.ok ? staged.value : design;
  }, [design, scenario]);
}

function When() {
  const at = useClock((clock) => clock.nextAt);
  const set = useClock((clock) => clock.setNextAt);
  return (
    <p className={styles.hint}>
      Happens at <NumberField label="When it happens, in seconds" value={at} least={0} most={MAX_UNTIL} commit={set} />{' '}
      s
    </p>
  );
}

/** Longer than three hellos of 2 s, after which what was heard is forgotten. */
const BUSY = 10;

export function BreakLink({ link }: { readonly link: Link }) {
  const happen = useHappen();
  const switches = useWorkbench((state) => state.design.switches);
  const nameOf = (id: SwitchId): string => switches.find((sw) => sw.id === id)?.name ?? id;
  const about = { link: link.id, between: { a: link.a, b: link.b } };
  return (
    <section className={styles.section} aria-label="What happens">
      <h3>What happens to this link</h3>
      <When />
      <div className={styles.buttons}>
        <Button variant="outlined" onClick={() => happen({ do: 'link-down', ...about, light: true })}>
          Cut it
        </Button>
        <Button variant="outlined" onClick={() => happen({ do: 'link-up', ...about })}>
          Restore it
        </Button>
        <Button
          variant="outlined"
          onClick={() => happen({ do: 'link-down', ...about, light: false })}
          title="As with a media converter in between: both ports stay up, only missing BPDUs tell"
        >
          Break it without loss of signal
        </Button>
        <Button
          variant="outlined"
          title="As of a switch that is too busy to send them in time; other frames get through"
          onClick={() => happen({ do: 'lose-bpdus', ...about, for: BUSY })}
        >
          {`Its BPDUs are lost for ${BUSY} s`}
        </Button>
        {[link.a, link.b].map((end) => (
          <Button
            key={end.switch}
            variant="outlined"
            onClick={() => happen({ do: 'one-way', ...about, from: end.switch })}
          >{`${nameOf(end.switch)} is no longer heard`}</Button>
        ))}
      </div>
    </section>
  );
}

export function BreakSwitch({ sw }: { readonly sw: Switch }) {
  const happen = useHappen();
  const [boot, setBoot] = useState(0);
  const design = useStage();
  const [free] = freePortsOf(design, sw);
  return (
    <section className={styles.section} aria-label="What happens">
      <h3>What happens to this switch</h3>
      <When />
      <div className={styles.buttons}>
        <Button variant="outlined" onClick={() => happen({ do: 'switch-down', switch: sw.id })}>
          Loses power
        </Button>
        <Button variant="outlined" onClick={() => happen({ do: 'switch-up', switch: sw.id, boot })}>
          Has power again
        </Button>
      </div>
      <p className={styles.hint}>
        It runs{' '}
        <NumberField
          label="Seconds from the power to the first frame"
          value={boot}
          least={0}
          most={MAX_UNTIL}
          commit={setBoot}
        />{' '}
        s after it has power.
      </p>
      <TextSetting
        label="Gets bridge priority"
        value=""
        placeholder={String(sw.priority)}
        read={read.bridgePriority}
        commit={(priority) => (priority === null ? null : happen({ do: 'bridge-priority', switch: sw.id, priority }))}
      />
      {free ? (
        <div className={styles.buttons}>
          <Button
            variant="outlined"
            onClick={() => happen({ do: 'add-switch', ...newSwitch(design, sw, free.id) })}
          >{`A new switch is plugged into port ${free.id}`}</Button>
        </div>
      ) : (
        <p className={styles.hint}>A new switch could be plugged in if a port were free.</p>
      )}
    </section>
  );
}

export function BreakPort({ id, port: portId }: { readonly id: SwitchId; readonly port: BridgePortId }) {
  const happen = useHappen();
  const design = useStage();
  const sw = design.switches.find((each) => each.id === id);
  const own = sw?.ports.find((each) => each.id === portId);
  if (!sw || !own) return null;
  const port = own.id;
  const free = freePortsOf(design, sw).some((each) => each.id === port);
  const member = design.bundles.some((bundle) => bundle.switch === id && bundle.ports.includes(port));
  const opens = !member && mayBeShut(own, sw);
  const stranger = free ? strangersSwitch(design, sw, port) : null;
  const others = free
    ? design.switches.flatMap((other) =>
        other.id === id
          ? []
          : freePortsOf(design, other).map((each) => ({
              switch: other.id,
              port: each.id,
              name: `${other.name ?? other.id} port ${each.id}`,
            })),
      )
    : [];
  return (
    <section className={styles.section} aria-label="What happens">
      <h3>What happens to this port</h3>
      <When />
      <TextSetting
        label="Gets path cost"
        value=""
        placeholder={own.cost === undefined ? 'by its speed' : String(own.cost)}
        read={read.pathCost(sw.pathCost ?? design.pathCost)}
        commit={(cost) => (cost === null ? null : happen({ do: 'port-cost', switch: id, port, cost }))}
      />
      {(free || opens) && (
        <div className={styles.buttons}>
          {stranger && (
            <Button
              variant="outlined"
              title="With better identifiers than any switch here"
              onClick={() => happen({ do: 'add-switch', ...stranger })}
            >
              A stranger’s switch is plugged in
            </Button>
          )}
          {free && (
            <Button
              variant="outlined"
              title="Without spanning tree, with a cable from itself to itself"
              onClick={() => happen({ do: 'add-switch', ...loopedSwitch(design, id, port) })}
            >
              A small switch in a loop is plugged in
            </Button>
          )}
          {opens && (
            <Button
              variant="outlined"
              title="As long as a guard keeps it shut"
              onClick={() => happen({ do: 'open-port', switch: id, port })}
            >
              Somebody opens it again
            </Button>
          )}
        </div>
      )}
      {free && (
        <div className={styles.row}>
          <label htmlFor="new-cable">A new cable to</label>
          <Select
            id="new-cable"
            wide
            value=""
            options={[
              ['', others.length > 0 ? 'choose a free port' : 'no other port is free'],
              ...others.map((to, i) => [String(i), to.name] as const),
            ]}
            choose={(i) => {
              const to = others[Number(i)];
              if (!to || i === '') return;
              const [a, b] = [
                { switch: id, port },
                { switch: to.switch, port: to.port },
              ];
              happen({ do: 'add-link', link: { id: new FreshNames(design).linkId(), a, b } });
            }}
          />
        </div>
      )}
    </section>
  );
}
