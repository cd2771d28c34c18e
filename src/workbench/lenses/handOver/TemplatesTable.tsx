'use client';
/** Templates of people's own: written here, with what each makes of a switch beside it, and its fault at its line. */
import Button from '@mui/material/Button';
import { useDeferredValue, useMemo, useRef, useState } from 'react';
import { firstFree } from '../../../core/base/firstFree';
import { settingsOf, type SwitchSet } from '../../../core/exchange/settings/settings';
import { EXAMPLES } from '../../../core/exchange/templates/examples';
import { templatesOf, type AtHand } from '../../../core/exchange/templates/atHand';
import { faultText } from '../../../core/exchange/templates/form';
import { OWN_FILTERS, renderTemplate } from '../../../core/exchange/templates/liquid';
import type { Template } from '../../../core/model/document';
import { useFollowing, useWorkbench } from '../../state/context';
import { useLibrary } from '../../state/library';
import { Editable } from '../../ui/editable';
import { Select } from '../../ui/Select';
import { TextButton } from '../../ui/TextButton';
import styles from '../../ui/table.module.css';
import room from './handOver.module.css';
import { useSwitchOf } from './useSwitchOf';

const NEW: AtHand = { id: '', name: 'New template', end: '.txt', text: '{{ name }}\n', keptIn: 'example' };

export function TemplatesTable() {
  const design = useFollowing((state) => state.design);
  const readOnly = useWorkbench((state) => state.readOnly);
  const act = useWorkbench((state) => state.act);
  const sets = useMemo(() => settingsOf(design), [design]);
  const library = useLibrary();
  const offered = templatesOf(design, library.templates);
  const [chosen, choose] = useState(offered[0]!.id);
  const [draft, setDraft] = useState<AtHand | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  if (sets.length === 0)
    return <p className={styles.empty}>There is no switch yet: templates write what is set at switches.</p>;
  const kept = offered.find(({ id }) => id === chosen) ?? offered[0]!;
  const shown = draft ?? kept;
  const change = (part: Partial<Template>) => setDraft({ ...shown, ...part });
  const open = (id: string) => {
    setDraft(null);
    setTrouble(null);
    choose(id);
  };
  const done = (id: string, refused: string | null) => {
    if (refused === null) open(id);
    else setTrouble(refused);
  };
  const keepInDesign = ({ id: own, name, end, text }: Template, keptIn: AtHand['keptIn']) => {
    const fresh = () => `t${firstFree(new Set(design.templates.map(({ id }) => Number(id.slice(1)))))}`;
    // One of the library, or a new one, is another here.
    const id = own === '' || keptIn === 'library' ? fresh() : own;
    done(id, act({ do: 'keep-template', template: { id, name, end, text } }));
  };
  const keepInLibrary = async ({ id: own, name, end, text }: Template, keptIn: AtHand['keptIn']) => {
    const id = keptIn === 'library' ? own : `l${crypto.randomUUID().slice(0, 8)}`;
    if (await library.keep({ id, name, end, text })) open(id);
  };
  const forget = async () => {
    if (kept.keptIn === 'design') done(EXAMPLES[0]!.id, act({ do: 'forget-template', template: kept.id }));
    else if (await library.forget(kept.id)) open(EXAMPLES[0]!.id);
  };
  return (
    <>
      <div className={styles.filter}>
        <label>
          Template{' '}
          <Select
            label="Template"
            value={shown.id}
            options={[
              ...offered.map(
                ({ id, name, keptIn }) => [id, keptIn === 'design' ? name : `${name} (${keptIn})`] as const,
              ),
              ...(shown.id === '' ? [['', shown.name] as const] : []),
            ]}
            choose={open}
          />
        </label>
        <Button size="small" variant="outlined" onClick={() => setDraft(NEW)}>
          New
        </Button>
        <Editable value={!readOnly}>
          <Button
            size="small"
            variant="contained"
            disabled={draft === null && kept.keptIn !== 'library'}
            onClick={() => keepInDesign(shown, shown.keptIn)}
          >
            Keep it in the design
          </Button>
        </Editable>
        <Button
          size="small"
          variant="outlined"
          disabled={draft === null && kept.keptIn === 'library'}
          title="The library is on the server, for any design"
          onClick={() => void keepInLibrary(shown, shown.keptIn)}
        >
          Keep it in the library
        </Button>
        {draft !== null ? (
          <TextButton does="plain" onClick={() => open(kept.id)}>
            throw the change away
          </TextButton>
        ) : (
          kept.keptIn !== 'example' && (
            <TextButton does="remove" onClick={() => void forget()}>
              {kept.keptIn === 'design' ? 'forget it' : 'take it out of the library'}
            </TextButton>
          )
        )}
        <span>
          In the language Liquid, over the settings of one switch; our own filters are {OWN_FILTERS.join(', ')}.
        </span>
        {(trouble ?? library.trouble) !== null && (
          <span className={styles.fault} role="alert">
            {trouble ?? library.trouble}
          </span>
        )}
      </div>
      <Editor key={shown.id} template={shown} change={change} sets={sets} />
    </>
  );
}

interface EditorProps {
  readonly template: Template;
  readonly change: (part: Partial<Template>) => void;
  readonly sets: readonly SwitchSet[];
}

function Editor({ template, change, sets }: EditorProps) {
  const { own, choose } = useSwitchOf(sets, ({ id }) => id);
  const sw = own!; // there is one: without any, no template is shown
  const text = useDeferredValue(template.text);
  const made = useMemo(() => renderTemplate(text, { ...sw, was: null }), [text, sw]);
  const area = useRef<HTMLTextAreaElement>(null);
  const showFault = (line: number) => {
    const lines = template.text.split('\n');
    const from = lines.slice(0, line - 1).reduce((sum, each) => sum + each.length + 1, 0);
    area.current?.focus();
    area.current?.setSelectionRange(from, from + (lines[line - 1]?.length ?? 0));
  };
  return (
    <div className={room.room}>
      <section className={room.half} aria-label="The template">
        <p className={room.names}>
          <label>
            Name{' '}
            <input
              className={styles.input}
              value={template.name}
              onChange={(event) => change({ name: event.target.value })}
            />
          </label>
          <label>
            files end with{' '}
            <input
              className={styles.input}
              style={{ width: 110 }}
              value={template.end}
              onChange={(event) => change({ end: event.target.value })}
            />
          </label>
        </p>
        <textarea
          ref={area}
          className={room.area}
          aria-label="Text of the template"
          spellCheck={false}
          value={template.text}
          onChange={(event) => change({ text: event.target.value })}
        />
      </section>
      <section className={room.half} aria-label="What it makes">
        <p className={room.names}>
          <label>
            Of{' '}
            <Select<string>
              label="Switch"
              value={sw.id}
              options={sets.map(({ id, name }) => [id, name])}
              choose={choose}
            />
          </label>
          {made.ok ? (
            made.value.trim() === '' && <span>Nothing: no file is written.</span>
          ) : (
            <span className={styles.fault} role="alert">
              {faultText(made.error)}. <TextButton onClick={() => showFault(made.error.line)}>show the line</TextButton>
            </span>
          )}
        </p>
        <pre className={room.made} tabIndex={0} aria-label="Preview">
          {made.ok ? made.value : ''}
        </pre>
      </section>
    </div>
  );
}
