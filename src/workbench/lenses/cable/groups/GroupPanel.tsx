'use client';
/** The group that the selected switches are, or can become. */
import Button from '@mui/material/Button';
import { useState } from 'react';
import { nameForGroup, newGroup, type Filled } from '../../../../core/analysis/groups/groups';
import { GROUP_KINDS, isTitle, type Design, type GroupKind } from '../../../../core/model/document';
import type { GroupId } from '../../../../core/model/ids';
import { nameOf } from '../../../../core/model/names';
import { useWorkbench } from '../../../state/context';
import { groupOfAll } from '../../../state/folding';
import type { Chosen } from '../../../state/subject';
import { ChoiceSetting, TextSetting } from '../../../ui/fields';
import styles from '../../../ui/panel.module.css';
import * as read from '../../../ui/read';
import { TextButton } from '../../../ui/TextButton';
import { upper } from '../../../ui/words/units';
import { counted } from '../../../../core/base/words';

export function GroupPanel({ chosen: { switches } }: { readonly chosen: Chosen }) {
  const design = useWorkbench((state) => state.design);
  if (switches.length < 2) return null;
  const ids = switches.map(({ id }) => id);
  const filled = groupOfAll(design, ids);
  const made = filled && design.groups.some(({ id }) => id === filled.group.id);
  return (
    <section className={styles.section} aria-label="Group">
      <h3>{made ? 'The group' : filled ? 'A block' : 'Group these'}</h3>
      {made ? <MadeGroup design={design} filled={filled} /> : <NewGroup design={design} ids={ids} block={filled} />}
      {filled && <FoldButtons filled={filled} />}
    </section>
  );
}

const NO_GROUP = '';

function MadeGroup({ design, filled: { group, switches } }: { readonly design: Design; readonly filled: Filled }) {
  const act = useWorkbench((state) => state.act);
  return (
    <>
      <p className={styles.sub}>{counted(switches.length, 'switch', 'switches')}</p>
      <TextSetting
        label="Name"
        value={nameOf(group)}
        read={read.name}
        commit={(name) => act({ do: 'set-group', group: group.id, name })}
      />
      <ChoiceSetting<GroupKind | ''>
        label="Kind"
        value={group.kind ?? NO_GROUP}
        options={[[NO_GROUP, 'Any'], ...GROUP_KINDS.map((kind) => [kind, upper(kind)] as const)]}
        commit={(kind) => act({ do: 'set-group', group: group.id, kind: kind === '' ? null : kind })}
      />
      <ChoiceSetting<string>
        label="Within"
        value={group.within ?? NO_GROUP}
        options={[
          [NO_GROUP, 'No other'],
          ...othersFor(design, group.id).map((other) => [other.id, nameOf(other)] as const),
        ]}
        commit={(within) =>
          act({ do: 'set-group', group: group.id, within: within === NO_GROUP ? null : (within as GroupId) })
        }
      />
      <div className={styles.buttons}>
        <Button
          variant="outlined"
          color="error"
          title="its switches stay"
          onClick={() => act({ do: 'remove-group', group: group.id })}
        >
          Remove the group
        </Button>
      </div>
    </>
  );
}

/** The groups that a group can lie within: those that do not lie within it. */
function othersFor({ groups }: Design, id: GroupId): Design['groups'] {
  const inside = new Set([id]);
  for (let before = 0; before < inside.size;) {
    before = inside.size;
    for (const group of groups) if (group.within !== undefined && inside.has(group.within)) inside.add(group.id);
  }
  return groups.filter((group) => !inside.has(group.id));
}

function NewGroup({
  design,
  ids,
  block,
}: {
  readonly design: Design;
  readonly ids: Parameters<typeof newGroup>[1];
  readonly block: Filled | undefined;
}) {
  const act = useWorkbench((state) => state.act);
  const usual = block ? nameOf(block.group) : nameForGroup(design, ids);
  const [typed, setTyped] = useState<{ readonly text: string; readonly over: string } | null>(null);
  const name = typed?.over === usual ? typed.text : usual;
  return (
    <form
      className={styles.row}
      onSubmit={(event) => {
        event.preventDefault();
        if (isTitle(name)) act(...newGroup(design, ids, name.trim()).commands);
      }}
    >
      <label htmlFor="new-group">Name</label>
      <span className={styles.input}>
        <input
          id="new-group"
          aria-label="Name of the new group"
          spellCheck={false}
          value={name}
          onChange={(event) => setTyped({ text: event.target.value, over: usual })}
        />
      </span>
      <div className={styles.note}>
        <TextButton does="edit" type="submit" disabled={!isTitle(name)}>
          group {counted(ids.length, 'switch', 'switches')}
        </TextButton>
      </div>
    </form>
  );
}

function FoldButtons({ filled: { group } }: { readonly filled: Filled }) {
  const folded = useWorkbench((state) => state.folded.has(group.id));
  const fold = useWorkbench((state) => state.fold);
  return (
    <p className={styles.sub}>
      On the map:{' '}
      <TextButton does="plain" onClick={() => fold([group.id], folded ? 'unfold' : 'fold')}>
        {folded ? 'unfold it' : 'fold it to one box'}
      </TextButton>
    </p>
  );
}
