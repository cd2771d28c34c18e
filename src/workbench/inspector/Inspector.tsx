'use client';
/** The right-hand panel: what is selected, and the lenses' panels about it. */
import { createElement, Fragment, useMemo } from 'react';
import { manifestOf, panelsFor } from '../lenses/lenses';
import { useWorkbench } from '../state/context';
import { mayEdit } from '../state/looking';
import { subjectOf, type SubjectKind, type Subjects } from '../state/subject';
import { Editable } from '../ui/editable';
import { TextButton } from '../ui/TextButton';
import styles from '../ui/panel.module.css';
import { OnlyThis } from './OnlyThis';
import { Title } from './Title';

export function Inspector() {
  const selection = useWorkbench((state) => state.selection);
  const design = useWorkbench((state) => state.design);
  const subject = useMemo(() => subjectOf(design, selection), [design, selection]);
  const open = useWorkbench((state) => state.inspector);
  const editable = useWorkbench(mayEdit);
  const toggle = useWorkbench((state) => state.toggleInspector);
  if (!open)
    return (
      <div className={styles.folded}>
        <TextButton does="plain" onClick={toggle} aria-expanded={false}>
          open inspector
        </TextButton>
      </div>
    );
  return (
    <div className={styles.panel}>
      {subject && (
        <Fragment key={selection?.kind === 'several' ? 'several' : JSON.stringify(selection)}>
          <Title subject={subject} />
          {subject.kind === 'design' && <Purpose />}
          <OnlyThis />
          {!editable && <p className={styles.hint}>To look at only: nothing can be changed here.</p>}
          <Editable value={editable}>
            <Panels of={subject.kind} subject={subject} />
          </Editable>
        </Fragment>
      )}
    </div>
  );
}

/** What the view that is open is for, where nothing is selected yet. */
function Purpose() {
  const lens = useWorkbench((state) => state.lens);
  return (
    <p className={styles.purpose}>
      <b>{lens}</b>: {manifestOf(lens).purpose}
    </p>
  );
}

function Panels<K extends SubjectKind>({ of, subject }: { readonly of: K; readonly subject: Subjects[K] }) {
  const lens = useWorkbench((state) => state.lens);
  return panelsFor(of, lens).map(({ key, Body }) => createElement(Body, { key, ...subject }));
}
