'use client';
/** What happens to the thing that is selected, and when: each button puts an action into the scenario and runs it. */
import { NumberField } from '../../ui/NumberField';
import Button from '@mui/material/Button';
import { useId, useState } from 'react';
import { FreshNames } from '../../../core/edit/fresh';
import type { BridgePortId, SwitchId } from '../../../core/model/ids';
import { BRIDGE_PRIORITY } from '../../../core/model/legal';
import { namesOf } from '../../../core/model/derive/names';
import { freePortsOf } from '../../../core/model/plugs';
import { MAX_UNTIL } from '../../../core/model/scenario';
import type { Design, Host, Link, LinkEnd, Stack, Switch } from '../../../core/model/document';
import { pairsOf } from '../../../core/topology/pairs';
import { mayBeShut } from '../../../core/topology/shut';
import { useHappen, useStage, When } from './happen';
import { newSwitch, smallSwitch, strangersSwitch } from './newSwitch';
import { useClock } from '../../state/clock';
import { useWorkbench } from '../../state/context';
import { ChoiceSetting, TextSetting } from '../../ui/fields';
import styles from '../../ui/panel.module.css';
import * as read from '../../ui/read';
import { Select } from '../../ui/Select';

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
      {sw.stack && <BreakStackMembers sw={sw} stack={sw.stack} />}
      {sw.pair && <BreakPair sw={sw} />}
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

/** What happens between the switches of a pair. */
function BreakPair({ sw }: { readonly sw: Switch }) {
  const happen = useHappen();
  const design = useWorkbench((state) => state.design);
  const pair = pairsOf(design).find(({ switches }) => switches.some(({ id }) => id === sw.id));
  const links = pair?.peerLinks ?? [];
  const about = (link: Link) => ({ link: link.id, between: { a: link.a, b: link.b } });
  return (
    <div className={styles.buttons}>
      {links.length > 0 && (
        <>
          <Button
            variant="outlined"
            title={links.length === 1 ? undefined : `All ${links.length} cables at once`}
            onClick={() => happen(...links.map((link) => ({ do: 'link-down' as const, ...about(link), light: true })))}
          >
            The peer link is cut
          </Button>
          <Button
            variant="outlined"
            onClick={() => happen(...links.map((link) => ({ do: 'link-up' as const, ...about(link) })))}
          >
            The peer link is restored
          </Button>
        </>
      )}
      {sw.pair?.keepalive === 'out-of-band' && (
        <>
          <Button variant="outlined" onClick={() => happen({ do: 'keepalive-down', switch: sw.id })}>
            The keepalive fails
          </Button>
          <Button variant="outlined" onClick={() => happen({ do: 'keepalive-up', switch: sw.id })}>
            The keepalive works again
          </Button>
        </>
      )}
    </div>
  );
}

/** What happens to a member of a stack, and to its stack cable. */
function BreakStackMembers({ sw, stack }: { readonly sw: Switch; readonly stack: Stack }) {
  const happen = useHappen();
  const [chosen, setChosen] = useState(stack.members[0]!.id);
  const member = stack.members.some(({ id }) => id === chosen) ? chosen : stack.members[0]!.id;
  const about = { switch: sw.id, member };
  return (
    <>
      <ChoiceSetting
        label="Of its members"
        value={String(member)}
        options={stack.members.map(({ id }) => [String(id), `Member ${id}`] as const)}
        commit={(id) => setChosen(Number(id))}
      />
      <div className={styles.buttons}>
        <Button variant="outlined" onClick={() => happen({ do: 'stack-member-down', ...about })}>
          The member loses power
        </Button>
        <Button variant="outlined" onClick={() => happen({ do: 'stack-member-up', ...about })}>
          The member has power again
        </Button>
        <Button variant="outlined" onClick={() => happen({ do: 'stack-cable-down', ...about })}>
          Its stack cable is cut
        </Button>
        <Button variant="outlined" onClick={() => happen({ do: 'stack-cable-up', ...about })}>
          Its stack cable is plugged in again
        </Button>
      </div>
    </>
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
  const here = { switch: id, port };
  const stranger = free ? strangersSwitch(design, here) : null;
  const open = free ? freeEndsOf(design, here) : [];
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
      <div className={styles.buttons}>
        <Button
          variant="outlined"
          title="As with its card, or because somebody sets it down"
          onClick={() => happen({ do: 'port-down', ...here })}
        >
          Goes down
        </Button>
        <Button variant="outlined" onClick={() => happen({ do: 'port-up', ...here })}>
          Comes up again
        </Button>
      </div>
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
              onClick={() => happen({ do: 'add-switch', ...smallSwitch(design, here, null) })}
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
        <>
          <FreePort
            label="A stranger’s, its other cable in"
            title="A switch with better identifiers than any here, on two cables"
            design={design}
            free={open}
            choose={(to) => {
              const both = strangersSwitch(design, here, to);
              if (both) happen({ do: 'add-switch', ...both });
            }}
          />
          <FreePort
            label="A small switch, its other cable in"
            title="Without spanning tree, as under a desk: it joins the two ports"
            design={design}
            free={open}
            choose={(to) => happen({ do: 'add-switch', ...smallSwitch(design, here, to) })}
          />
          <FreePort
            label="A new cable to"
            design={design}
            free={open.filter((to) => to.switch !== id)}
            choose={(to) =>
              happen({ do: 'add-link', link: { id: new FreshNames(design).linkId(), a: here, b: { ...to } } })
            }
          />
        </>
      )}
    </section>
  );
}

/** The free ports of a design but for one: those of its own switch first. */
function freeEndsOf(design: Design, but: LinkEnd): LinkEnd[] {
  const own = (sw: Switch): boolean => sw.id === but.switch;
  return [...design.switches.filter(own), ...design.switches.filter((sw) => !own(sw))].flatMap((sw) =>
    freePortsOf(design, sw).flatMap(({ id }) => (own(sw) && id === but.port ? [] : [{ switch: sw.id, port: id }])),
  );
}

/** Another free port, and what happens once it is chosen. */
function FreePort({
  label,
  title,
  design,
  free,
  choose,
}: {
  readonly label: string;
  readonly title?: string;
  readonly design: Design;
  readonly free: readonly LinkEnd[];
  readonly choose: (end: LinkEnd) => void;
}) {
  const id = useId();
  const { end: nameOf } = namesOf(design);
  return (
    <div className={styles.row} title={title}>
      <label htmlFor={id}>{label}</label>
      <Select
        id={id}
        wide
        value=""
        options={[
          ['', free.length > 0 ? 'choose a free port' : 'no other port is free'],
          ...free.map((end, i) => [String(i), nameOf(end)] as const),
        ]}
        choose={(i) => {
          const end = free[Number(i)];
          if (end && i !== '') choose(end);
        }}
      />
    </div>
  );
}

/** The host may begin to send BPDUs, as one with a bridge of its own; over one cable. */
export function BreakHost({ host }: { readonly host: Host }) {
  const happen = useHappen();
  const switches = useWorkbench((state) => state.design.switches);
  const already = useClock(({ scenario }) =>
    scenario.actions.some((action) => action.do === 'host-bpdus' && action.host === host.id),
  );
  const [at, ...more] = host.attach;
  const dialect = switches.find((sw) => sw.id === at?.switch)?.dialect;
  if (!dialect) return null;
  const sends = (priority: number): null =>
    happen({ do: 'host-bpdus', host: host.id, priority, dialect: dialect === 'off' ? 'rstp' : dialect });
  return (
    <section className={styles.section} aria-label="What happens">
      <h3>What happens to this host</h3>
      {more.length === 0 && !already ? (
        <>
          <When />
          <TextSetting
            label="Sends them with bridge priority"
            value=""
            placeholder={String(BRIDGE_PRIORITY.default)}
            read={read.bridgePriority}
            commit={(priority) => (priority === null ? null : sends(priority))}
          />
          <div className={styles.buttons}>
            <Button
              variant="outlined"
              title="As one does with a bridge inside of it, for virtual machines"
              onClick={() => sends(BRIDGE_PRIORITY.default)}
            >
              It sends BPDUs
            </Button>
          </div>
        </>
      ) : (
        <p className={styles.hint}>
          {more.length > 0 ? 'A host with one cable may begin to send BPDUs.' : 'It sends BPDUs in this scenario.'}
        </p>
      )}
    </section>
  );
}
