'use client';
/** The top row: the design and whether it is saved, the lenses, undo and redo, light or dark. */
import ButtonBase from '@mui/material/ButtonBase';
import { useWorkbench } from '../state/context';
import type { SaveState } from '../state/saver';
import { manifestOf } from '../lenses/lenses';
import { LENSES } from '../state/lens';
import styles from './frame.module.css';
import { Mark } from '../ui/Mark';
import { Onlookers } from './Onlookers';
import { PictureMenu } from './PictureMenu';
import { SchemeButton } from './SchemeButton';
import { HAS_SERVER } from '../state/reach';
import { exportDesign } from '../state/exportDesign';
import { TextButton } from '../ui/TextButton';
import { WholePageLink } from '../ui/WholePageLink';
import { mayEdit, lookingText, type Looking } from '../state/looking';

export function Header() {
  const name = useWorkbench((state) => state.design.name);
  const lens = useWorkbench((state) => state.lens);
  const setLens = useWorkbench((state) => state.setLens);
  const openDialog = useWorkbench((state) => state.openDialog);
  const readOnly = useWorkbench((state) => state.readOnly);
  return (
    <header className={styles.head}>
      <Brand />
      <div className={styles.design}>
        <h1 title={name}>{name}</h1>
        <SaveStatus />
      </div>
      <Onlookers />
      <div className={styles.lenses} role="tablist" aria-label="Views">
        {LENSES.map((each) => (
          <ButtonBase
            key={each}
            role="tab"
            aria-selected={lens === each}
            title={manifestOf(each).purpose}
            className={styles.lens}
            onClick={() => setLens(each)}
          >
            {each}
          </ButtonBase>
        ))}
      </div>
      <div className={styles.tools}>
        <TextButton
          does="plain"
          onClick={() => openDialog('palette')}
          title="every action and object by its name (Ctrl+K)"
          aria-keyshortcuts="Control+K"
        >
          Find
        </TextButton>
        <TextButton does="plain" onClick={() => openDialog('keys')} title="all keys (?)" aria-keyshortcuts="?">
          Keys
        </TextButton>
        {!readOnly && (
          <>
            <StepButton kind="undo" />
            <StepButton kind="redo" />
          </>
        )}
        <ExportButton />
        <PictureMenu />
        <SchemeButton />
      </div>
    </header>
  );
}

function Brand() {
  const name = (
    <>
      <Mark /> Knot Path
    </>
  );
  return HAS_SERVER ? (
    <WholePageLink href="/" className={styles.brand} title="all designs">
      {name}
    </WholePageLink>
  ) : (
    <span className={styles.brand}>{name}</span>
  );
}

function ExportButton() {
  const id = useWorkbench((state) => state.id);
  const design = useWorkbench((state) => state.newest);
  const saved = useWorkbench((state) => state.save.kind === 'saved');
  return (
    <TextButton
      does="plain"
      onClick={() => exportDesign(id, design)}
      disabled={!saved}
      title="download this design as a .knot.json file"
    >
      Export
    </TextButton>
  );
}

function SaveStatus() {
  const revision = useWorkbench((state) => state.revision);
  const save = useWorkbench((state) => state.save);
  const looking = useWorkbench((state) => state.looking);
  const readOnly = useWorkbench((state) => state.readOnly);
  const trouble = save.kind !== 'saved' && save.kind !== 'saving';
  return (
    <span
      className={trouble ? styles.attention : undefined}
      role="status"
      data-save={save.kind}
      title={save.kind === 'offline' ? save.message : undefined}
    >
      {looking.kind === 'present'
        ? `revision ${revision}, ${readOnly ? 'to look at only' : saveText(save)}`
        : awayText(looking)}
    </span>
  );
}

/** Short: the line above the map says the rest. */
function awayText(looking: Looking): string {
  if (looking.kind === 'worksheet') return 'filling in a worksheet';
  const at = lookingText(looking);
  return at.length <= SHORT ? `looking at ${at}` : 'looking at another state';
}
const SHORT = 14;

function saveText(save: SaveState): string {
  switch (save.kind) {
    case 'saved':
      return 'saved';
    case 'saving':
      return 'saving…';
    case 'offline':
      return `not saved: ${save.short}, trying again`;
    case 'conflict':
      return 'not saved: changed elsewhere';
    case 'refused':
      return 'not saved: refused';
  }
}

function StepButton({ kind }: { readonly kind: 'undo' | 'redo' }) {
  const step = useWorkbench((state) =>
    (!mayEdit(state) ? [] : kind === 'undo' ? state.undoSteps : state.redoSteps).at(-1),
  );
  const go = useWorkbench((state) => state[kind]);
  const keys = kind === 'undo' ? 'Ctrl+Z' : 'Ctrl+Shift+Z';
  const label = kind === 'undo' ? 'Undo' : 'Redo';
  return (
    <TextButton
      does="edit"
      onClick={go}
      disabled={!step}
      title={step ? `${label} (${keys}): ${step.label.slice(0, 200)}` : `Nothing to ${kind}`}
      aria-keyshortcuts={kind === 'undo' ? 'Control+Z' : 'Control+Shift+Z'}
    >
      {label}
    </TextButton>
  );
}
