'use client';
/** A quiet button of a few words, which looks like what it does. Plain HTML: hundreds of them may be redrawn at once. */
import type { ComponentProps } from 'react';
import { useEditable } from './editable';
import styles from './textButton.module.css';

const LOOKS = {
  link: styles.link,
  edit: styles.edit,
  remove: styles.remove,
  plain: styles.plain,
  toggle: styles.toggle,
};

interface Props extends ComponentProps<'button'> {
  /**
   * `link` goes somewhere or shows something and changes nothing, `edit` writes a revision, `remove` takes something away,
   * `plain` closes, stops or goes back. Without a word, what can be pressed (`aria-pressed`, `aria-expanded`) looks like a
   * toggle, and the rest like a link.
   */
  readonly does?: Exclude<keyof typeof LOOKS, 'toggle'>;
}

export function TextButton({ className, does, ...props }: Props) {
  const editable = useEditable();
  const closed = !editable && (does === 'edit' || does === 'remove');
  const toggles = props['aria-pressed'] !== undefined || props['aria-expanded'] !== undefined;
  const looks = `${styles.text} ${LOOKS[does ?? (toggles ? 'toggle' : 'link')]}`;
  return (
    <button
      type="button"
      {...props}
      disabled={props.disabled === true || closed}
      className={className ? `${looks} ${className}` : looks}
    />
  );
}
