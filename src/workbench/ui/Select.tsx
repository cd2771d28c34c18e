'use client';
/** One of several, as the browser offers them. */
import styles from './kit.module.css';

/** A value and what people read. */
export type Option<T extends string> = readonly [value: T, text: string];

export interface SelectProps<T extends string> {
  /** Where no label stands beside it. */
  readonly label?: string;
  readonly value: T;
  readonly options: readonly Option<T>[];
  readonly choose: (value: T) => void;
  readonly id?: string;
  readonly title?: string;
  /** As wide as its place. */
  readonly wide?: boolean;
  readonly disabled?: boolean;
  readonly onFocus?: () => void;
}

export function Select<T extends string>({ label, value, options, choose, wide = false, ...rest }: SelectProps<T>) {
  return (
    <select
      {...rest}
      aria-label={label}
      className={wide ? styles.wideSelect : styles.select}
      value={value}
      onChange={(event) => choose(event.target.value as T)}
    >
      {options.map(([option, text]) => (
        <option key={option} value={option}>
          {text}
        </option>
      ))}
    </select>
  );
}
