'use client';
/** The whole list of a switch's settings as text, to be read in one place and copied. */
import { useState } from 'react';
import type { Switch } from '../../../core/model/document';
import { switchLines } from '../../../core/model/derive/settingsText';
import { useFollowing } from '../../state/context';
import { TextButton } from '../../ui/TextButton';
import styles from '../../ui/panel.module.css';

export function AllSettings({ sw }: { readonly sw: Switch }) {
  const design = useFollowing((state) => state.design);
  const [open, setOpen] = useState(false);
  const [copied, setCopied] = useState('');
  const text = open ? switchLines(design, sw.id).join('\n') : '';
  const copy = () =>
    navigator.clipboard.writeText(switchLines(design, sw.id).join('\n')).then(
      () => setCopied('copied'),
      () => setCopied('the browser did not allow it'),
    );
  return (
    <section className={styles.section} aria-label="All settings as text">
      <h3>All settings as text</h3>
      <p className={styles.hint}>
        <TextButton aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? 'hide them' : 'show them'}
        </TextButton>{' '}
        <TextButton does="plain" onClick={() => void copy()} onBlur={() => setCopied('')}>
          copy them
        </TextButton>{' '}
        <span role="status">{copied}</span>
      </p>
      {open && (
        <pre className={styles.text} tabIndex={0} aria-label={`Settings of ${sw.name ?? sw.id}`}>
          {text}
        </pre>
      )}
    </section>
  );
}
