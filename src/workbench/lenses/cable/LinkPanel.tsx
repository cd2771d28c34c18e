'use client';
/** A cable and both its ends: cut or up, speed, delay, what it carries. */
import Button from '@mui/material/Button';
import type { Link } from '../../../core/model/document';
import { useWorkbench } from '../../state/context';
import { portsOf } from '../../state/subject';
import { ChoiceSetting, TextSetting } from '../../ui/fields';
import styles from '../../ui/panel.module.css';
import * as read from '../../ui/read';
import { speedText } from '../../ui/words/units';
import { CarriageFields } from './PortFields';

export function LinkPanel({ link }: { readonly link: Link }) {
  const act = useWorkbench((state) => state.act);
  const design = useWorkbench((state) => state.design);
  const bothEnds = portsOf(design, link);
  const [speedA, speedB] = [bothEnds[0]?.port.speed ?? 0, bothEnds[1]?.port.speed ?? 0];
  return (
    <section className={styles.section}>
      <h3>The cable and both its ends</h3>
      <ChoiceSetting
        label="Cable"
        value={link.up ? 'up' : 'cut'}
        options={[
          ['up', 'Up'],
          ['cut', 'Cut'],
        ]}
        commit={(to) => act({ do: 'set-link', link: link.id, up: to === 'up' })}
      />
      <ChoiceSetting
        label="Media converter"
        value={link.converter ? 'there' : 'none'}
        options={[
          ['none', 'None'],
          ['there', 'There: hides a dead fibre'],
        ]}
        commit={(to) => act({ do: 'set-link', link: link.id, converter: to === 'there' ? true : null })}
      />
      <TextSetting
        label="Speed, both ends"
        value={speedA === speedB ? speedText(speedA) : ''}
        placeholder={`${speedText(speedA)} and ${speedText(speedB)}`}
        read={read.speed}
        commit={(speed) => act({ do: 'set-link', link: link.id, speed })}
      />
      <TextSetting
        label="Delay, one way"
        value={link.delay === undefined ? '' : String(link.delay)}
        placeholder="short cable, 5"
        adornment="µs"
        read={read.linkDelay}
        commit={(delay) => act({ do: 'set-link', link: link.id, delay })}
      />
      <CarriageFields ports={bothEnds} />
      <div className={styles.buttons}>
        <Button variant="outlined" color="error" onClick={() => act({ do: 'remove-link', link: link.id })}>
          Unplug this cable
        </Button>
      </div>
    </section>
  );
}
