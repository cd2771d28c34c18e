/** A term of the field as the screen shows it; what it means appears when it is pointed at. */
import { termText } from './words/terms';
import styles from './ui.module.css';

/** `of` is the term where the label alone does not say it (`D`: designated). */
export function Term({ children, of = children }: { readonly children: string; readonly of?: string }) {
  const text = termText(of);
  return text === undefined ? (
    children
  ) : (
    <span className={styles.term} title={text}>
      {children}
    </span>
  );
}
