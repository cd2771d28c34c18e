'use client';
/** What the last change moved, in one line, with the way to see it and to undo it. */
import { useState } from 'react';
import { vlansText as vlanRanges } from '../../core/model/vlanSet';
import { treeName, type TreeId } from '../../core/model/ids';
import { TextButton } from '../ui/TextButton';
import { useWorkbench } from '../state/context';
import type { Moved } from '../state/moved';
import { counted } from '../../core/base/words';
import styles from './map.module.css';

export function MovedBar() {
  const moved = useWorkbench((state) => state.moved);
  const shown = useWorkbench((state) => state.shownTrees);
  const canUndo = useWorkbench((state) => state.undoSteps.length > 0);
  const openDrawer = useWorkbench((state) => state.openDrawer);
  const undo = useWorkbench((state) => state.undo);
  const forget = useWorkbench((state) => state.forgetMoved);
  const looking = useWorkbench((state) => state.looking);
  const advice = useWorkbench((state) => state.advice);
  const act = useWorkbench((state) => state.act);
  const look = useWorkbench((state) => state.look);
  const present = looking.kind === 'present';
  const said = advice?.text ?? (present ? moved?.label : undefined) ?? '';
  const cut = said.length > (advice ? MOST.advice : MOST.label);
  const [read, setRead] = useState<string | null>(null);
  const whole = (text: string, most: number): string => shortened(text, read === said ? LONGEST : most);
  if (present && !advice && !moved) return <div className={styles.moved} role="status" aria-live="polite" />;
  return (
    <div className={styles.moved} role="status" aria-live="polite">
      <span>
        {looking.kind === 'worksheet'
          ? `A worksheet for ${treeName(looking.tree)}: everything computed is hidden until you compare. `
          : !present && (
              <>
                Looking at <b>{looking.label.slice(0, 80)}</b>; nothing can be changed here.{' '}
              </>
            )}
        {advice && `${whole(advice.text, MOST.advice)} `}
        {moved && !advice && present && <b>{whole(moved.label, MOST.label)}: </b>}
        {moved && sentence([movedText(moved, shown), ...movedVlansText(moved.vlans)].join('; '), present)}
      </span>
      {cut && (
        <TextButton does="plain" aria-expanded={read === said} onClick={() => setRead(read === said ? null : said)}>
          {read === said ? 'less' : 'more'}
        </TextButton>
      )}
      {!present && (
        <TextButton does="plain" onClick={() => look(null)}>
          {looking.kind === 'worksheet' ? 'close, keep answers' : 'go back to now'}
        </TextButton>
      )}
      {advice?.remedy && (
        <TextButton does="edit" onClick={() => act(...advice.remedy!.commands)} title={advice.remedy.label}>
          {shortened(advice.remedy.label, 120)}
        </TextButton>
      )}
      {moved && moved.ends.length > 0 && (
        <TextButton onClick={() => openDrawer('moved')} title="the table of changed ports">
          list them
        </TextButton>
      )}
      {canUndo && moved?.by === 'edit' && (
        <TextButton does="edit" onClick={undo}>
          undo
        </TextButton>
      )}
      {(moved ?? advice) && (
        <TextButton does="plain" onClick={forget} aria-label="close this message">
          close
        </TextButton>
      )}
    </div>
  );
}

/** How much of a message stands there before it is read whole. */
const MOST = { advice: 130, label: 80 } as const;
/** No name fills the screen for ever. */
const LONGEST = 4000;

/** Cut with an ellipsis where it is longer. */
const shortened = (text: string, most: number): string =>
  text.length > most ? `${text.slice(0, most - 1).trimEnd()}…` : text;

/** `VLAN 45 takes another way (4 links)`, `VLANs 15,25 take other ways`. */
export function movedVlansText(vlans: Moved['vlans']): string[] {
  const [only, ...more] = vlans;
  if (!only) return [];
  return [
    more.length === 0
      ? `VLAN ${only.vid} takes another way (${counted(only.links, 'link')})`
      : `VLANs ${vlanRanges(vlans.map(({ vid }) => vid))} take other ways`,
  ];
}

/** Goes on behind a name where it is about the present; else it stands for itself. */
const sentence = (text: string, goesOn: boolean): string =>
  goesOn ? text : `${text.charAt(0).toUpperCase()}${text.slice(1)}.`;

/** `5 ports changed in VLAN 15, none in VLAN 25; 12 in 4 other trees`. */
export function movedText({ ends }: Pick<Moved, 'ends'>, shown: readonly TreeId[]): string {
  if (ends.length === 0) return 'no port changed its role';
  const counts = shown.map((tree) => [treeName(tree), ends.filter((end) => end.tree === tree).length] as const);
  const changed = counts.filter(([, n]) => n > 0);
  const still = counts.filter(([, n]) => n === 0).map(([name]) => name);
  const parts = changed.map(([name, n], i) =>
    i === 0 ? `${counted(n, 'port')} changed in ${name}` : `${n} in ${name}`,
  );
  if (still.length > 0) parts.push(`${parts.length > 0 ? 'none' : 'no port changed'} in ${still.join(', ')}`);
  const elsewhere = ends.filter((end) => !shown.includes(end.tree));
  const trees = new Set(elsewhere.map((end) => end.tree)).size;
  return parts.join(', ') + (trees > 0 ? `; ${elsewhere.length} in ${counted(trees, 'other tree')}` : '');
}
