'use client';
/** Templates of people's own: written here, with what each makes of a switch beside it, and its fault at its line. */
import Button from '@mui/material/Button';
import { useDeferredValue, useMemo, useRef, useState } from 'react';
import { firstFree } from '../../../core/base/firstFree';
import { settingsOf, type SwitchSet } from '../../../core/exchange/settings/settings';
import { EXAMPLES } from '../../../core/exchange/templates/examples';
import { faultText, templatesOf } from '../../../core/exchange/templates/form';
import { OWN_FILTERS, renderTemplate } from '../../../core/exchange/templates/liquid';
import type { Template } from '../../../core/model/document';
import { useFollowing, useWorkbench } from '../../state/context';
import { Editable } from '../../ui/editable';
import { Select } from '../../ui/Select';
import { TextButton } from '../../ui/TextButton';
import styles from '../../ui/table.module.css';
import room from './handOver.module.css';
import { useSwitchOf } from './useSwitchOf';

const NEW: Template = { id: '', name: 'New template', end: '.txt', text: '{{ name }}\n' };

export function TemplatesTable() {
  const design = useFollowing((state) => state.design);
  const act = useWorkbench((state) => state.act);
  const sets = useMemo(() => settingsOf(design), [design]);
  const offered = templatesOf(design);
  const [chosen, choose] = useState(offered[0]!.id);
  const [draft, setDraft] = useState<Template | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  if (sets.length === 0)
    return <p className={styles.empty}>There is no switch yet: templates write what is set at switches.</p>;
  const kept = design.templates.find(({ id }) => id === chosen) ?? null;
  const shown = draft ?? offered.find(({ id }) => id === chosen) ?? offered[0]!;
  const isExample = kept === null && EXAMPLES.some(({ id }) => id === shown.id);
  const change = (part: Partial<Template>) => setDraft({ ...shown, ...part });
  const open = (id: string) => {
    setDraft(null);
    setTrouble(null);
    choose(id);
  };
  const keep = () => {
    const id = shown.id === '' ? `t${firstFree(new Set(offered.map((each) => Number(each.id.slice(1)))))}` : shown.id;
    const refused = act({ do: 'keep-template', template: { ...shown, id } });
    setTrouble(refused);
    if (refused !== null) return;
    choose(id);
    setDraft(null);
  };
  const forget = () => {
    const refused = act({ do: 'forget-template', template: shown.id });
    if (refused === null) open(EXAMPLES[0]!.id);
    else setTrouble(refused);
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
                ({ id, name }) =>
                  [id, design.templates.some((each) => each.id === id) ? name : `${name} (example)`] as const,
              ),
              ...(shown.id === '' ? [['', shown.name] as const] : []),
            ]}
            choose={open}
          />
        </label>
        <Button size="small" variant="outlined" onClick={() => setDraft(NEW)}>
          New
        </Button>
        <Editable value>
          <Button size="small" variant="contained" disabled={draft === null} onClick={keep}>
            {isExample ? 'Keep it in the design' : 'Keep it'}
          </Button>
          {draft !== null && (
            <TextButton does="plain" onClick={() => open(kept ? chosen : EXAMPLES[0]!.id)}>
              throw the change away
            </TextButton>
          )}
          {kept && draft === null && (
            <TextButton does="remove" onClick={forget}>
              forget it
            </TextButton>
          )}
        </Editable>
        <span>
          In the language Liquid, over the settings of one switch; our own filters are {OWN_FILTERS.join(', ')}.
        </span>
        {trouble !== null && (
          <span className={styles.fault} role="alert">
            {trouble}
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
