'use client';
/** What a switch is and what it is set to. */
import Button from '@mui/material/Button';
import type { Command } from '../../../core/edit/commands';
import { FreshNames } from '../../../core/edit/fresh';
import type { Switch } from '../../../core/model/document';
import { useWorkbench } from '../../state/context';
import { TextSetting } from '../../ui/fields';
import styles from '../../ui/panel.module.css';
import * as read from '../../ui/read';
import { newStackMember } from './StackPanel';
import { SwitchFields } from './SwitchFields';

export function SwitchPanel({ sw }: { readonly sw: Switch }) {
  const { id } = sw;
  const act = useWorkbench((state) => state.act);
  const design = useWorkbench((state) => state.design);
  const makeStack = (): Command => {
    const fresh = new FreshNames(design);
    const first = { ...newStackMember(fresh, []), mac: sw.mac };
    return {
      do: 'set-switch',
      switch: id,
      stack: { ring: true, keepsAddress: true, members: [first, newStackMember(fresh, [first])] },
    };
  };
  return (
    <section className={styles.section}>
      <h3>The switch</h3>
      <TextSetting
        label="Name"
        value={sw.name ?? sw.id}
        read={read.name}
        commit={(name) => act({ do: 'set-switch', switch: id, name })}
      />
      <TextSetting
        label="MAC address"
        value={sw.mac}
        read={read.mac}
        commit={(mac) => act({ do: 'set-switch', switch: id, mac })}
      />
      <SwitchFields switches={[sw]} />
      <div className={styles.buttons}>
        {!sw.stack && (
          <Button
            variant="outlined"
            title="Several switches cabled into one, with the ports of all"
            onClick={() => act(makeStack())}
          >
            Make it a stack of two
          </Button>
        )}
        <Button variant="outlined" color="error" onClick={() => act({ do: 'remove-switch', switch: id })}>
          Remove this switch
        </Button>
      </div>
    </section>
  );
}
