'use client';
/** The members of a stack: which act, under which master, and what they are set to. */
import Button from '@mui/material/Button';
import { useState } from 'react';
import { FreshNames } from '../../../core/edit/fresh';
import type { StackMember, Stack, Switch } from '../../../core/model/document';
import { MAX_STACK_MEMBERS } from '../../../core/model/limits';
import { stackMemberOf, stackState } from '../../../core/model/stack';
import { useWorkbench } from '../../state/context';
import { ChoiceSetting, TextSetting } from '../../ui/fields';
import styles from '../../ui/panel.module.css';
import * as read from '../../ui/read';
import { TextButton } from '../../ui/TextButton';

export function StackPanel({ sw }: { readonly sw: Switch }) {
  return sw.stack ? <StackMembers sw={sw} stack={sw.stack} /> : null;
}

function StackMembers({ sw, stack }: { readonly sw: Switch; readonly stack: Stack }) {
  const act = useWorkbench((state) => state.act);
  const design = useWorkbench((state) => state.design);
  const set = (change: Partial<Stack>): string | null =>
    act({ do: 'set-switch', switch: sw.id, stack: { ...stack, ...change } });
  const { acting, master, apart } = stackState(stack);
  const last = stack.members.at(-1)!;
  const onLast = sw.ports.some((port) => stackMemberOf(stack, port) === last);
  return (
    <section className={styles.section} aria-label="Members of the stack">
      <h3>Its members</h3>
      <p className={styles.hint}>
        {standing(acting.length, stack.members.length, master)}
        {apart.length > 0 && ' The others have lost them, and have taken their ports down.'}
      </p>
      {stack.members.map((member) => (
        <MemberRow key={member.id} {...{ sw, stack, member }} />
      ))}
      <ChoiceSetting
        label="Cabled as"
        value={stack.ring ? 'ring' : 'chain'}
        options={[
          ['ring', 'Ring'],
          ['chain', 'Chain'],
        ]}
        commit={(to) => set({ ring: to === 'ring' })}
      />
      <ChoiceSetting
        label="MAC address"
        value={stack.keepsAddress ? 'kept' : 'master'}
        options={[
          ['kept', 'Kept'],
          ['master', 'That of its master'],
        ]}
        note={
          stack.keepsAddress ? 'whichever member is lost' : 'another switch to its neighbours once the master is lost'
        }
        commit={(to) => set({ keepsAddress: to === 'kept' })}
      />
      <div className={styles.buttons}>
        {stack.members.length < MAX_STACK_MEMBERS && (
          <Button
            variant="outlined"
            onClick={() => set({ members: [...stack.members, newStackMember(new FreshNames(design), stack.members)] })}
          >
            Add a member
          </Button>
        )}
        {stack.members.length > 2 && (
          <Button
            variant="outlined"
            color="error"
            disabled={onLast}
            title={onLast ? 'Its ports go to another member first' : undefined}
            onClick={() => set({ members: stack.members.slice(0, -1) })}
          >{`Remove member ${last.id}`}</Button>
        )}
        <Button variant="outlined" color="error" onClick={() => act({ do: 'set-switch', switch: sw.id, stack: null })}>
          No longer a stack
        </Button>
      </div>
    </section>
  );
}

function standing(acting: number, all: number, master: StackMember | null): string {
  if (!master) return 'No member has power.';
  if (acting === 1) return `One of its ${all} members acts as the switch: member ${master.id}.`;
  return `${acting === all ? `All ${all}` : `${acting} of its ${all}`} members act as one switch; member ${master.id} is master.`;
}

/** The next number that is free. */
export function newStackMember(fresh: FreshNames, members: readonly StackMember[]): StackMember {
  const id = Array.from({ length: MAX_STACK_MEMBERS }, (_, i) => i + 1).find((n) =>
    members.every((member) => member.id !== n),
  )!;
  return { id, mac: fresh.mac(), masterPriority: 1, up: true, cable: true };
}

function MemberRow({
  sw,
  stack,
  member,
}: {
  readonly sw: Switch;
  readonly stack: Stack;
  readonly member: StackMember;
}) {
  const act = useWorkbench((state) => state.act);
  const [opened, setOpened] = useState(false);
  const { acting, master } = stackState(stack);
  const ports = sw.ports.filter((port) => stackMemberOf(stack, port) === member).map(({ id }) => id);
  const at = stack.members.indexOf(member);
  const next = stack.members[at + 1] ?? (stack.ring ? stack.members[0]! : null);
  const set = (change: Partial<Omit<StackMember, 'id'>>): string | null =>
    act({ do: 'set-stack-member', switch: sw.id, member: member.id, ...change });
  const state = !member.up
    ? 'no power'
    : member === master
      ? 'master'
      : acting.includes(member)
        ? 'acts'
        : 'ports down';
  return (
    <div role="group" aria-label={`member ${member.id}`}>
      <p className={styles.hint}>
        <b>{`member ${member.id}`}</b>
        {`: ${state}; ${ports.length === 0 ? 'no ports' : `${ports.length === 1 ? 'port' : 'ports'} ${ports.join(', ')}`}`}
      </p>
      <div className={styles.buttons}>
        <TextButton does="edit" onClick={() => set({ up: !member.up })}>
          {member.up ? 'switch off' : 'switch on'}
        </TextButton>
        {next && (
          <TextButton does="edit" onClick={() => set({ cable: !member.cable })}>
            {member.cable ? `cut stack cable to ${next.id}` : `plug in stack cable to ${next.id}`}
          </TextButton>
        )}
        <TextButton aria-expanded={opened} onClick={() => setOpened(!opened)}>
          {opened ? 'hide' : 'settings'}
        </TextButton>
      </div>
      {opened && (
        <>
          <TextSetting
            label="Wish to be master"
            value={String(member.masterPriority)}
            note="1 to 15, the highest is master"
            read={read.masterPriority}
            commit={(masterPriority) => set({ masterPriority })}
          />
          <TextSetting label="Its MAC address" value={member.mac} read={read.mac} commit={(mac) => set({ mac })} />
        </>
      )}
    </div>
  );
}
