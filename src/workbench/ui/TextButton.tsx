'use client';
/** A quiet button that reads as a word of the sentence it stands in. Plain HTML: hundreds of them may be redrawn at once. */
import type { ComponentProps } from 'react';
import styles from './textButton.module.css';

export function TextButton({ className, ...props }: ComponentProps<'button'>) {
  return <button type="button" {...props} className={className ? `${styles.text} ${className}` : styles.text} />;
}
