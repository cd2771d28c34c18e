/** Lines that are wrong, with marks under the characters, and why. */
import type { LineFault } from '../../../../core/cabling/tokens';
import styles from './line.module.css';

/** A line that was read; `fault` where it is wrong. */
export interface ReadLine {
  readonly line: number;
  readonly fault: LineFault | null;
}

/** How much of a long line is shown around a fault. */
const AROUND = 46;
/** Lines shown at once. */
const MOST = 3;

export function Faults({ lines, text }: { readonly lines: readonly ReadLine[]; readonly text: string }) {
  const wrong = lines.flatMap(({ line, fault }) => (fault ? [{ line, fault }] : []));
  const source = text.replace(/\r\n?/g, '\n').split('\n');
  return (
    <>
      {wrong.slice(0, MOST).map(({ line, fault }) => (
        <FaultView key={line} fault={fault} source={source[line] ?? ''} number={source.length > 1 ? line + 1 : null} />
      ))}
      {wrong.length > MOST && <p className={styles.soft}>and {wrong.length - MOST} more lines with faults</p>}
    </>
  );
}

function FaultView({
  fault: { at, length, message },
  source,
  number,
}: {
  readonly fault: LineFault;
  readonly source: string;
  readonly number: number | null;
}) {
  const start = Math.max(0, at - AROUND);
  const shown = source.slice(start, at + AROUND);
  const lead = start > 0 ? '…' : '';
  return (
    <div className={styles.fault}>
      {number !== null && <span className={styles.soft}>line {number}</span>}
      <pre aria-hidden="true">
        {lead + shown}
        {'\n'}
        <b>{' '.repeat(lead.length + at - start) + '^'.repeat(Math.max(1, Math.min(length, AROUND)))}</b>
      </pre>
      <p>
        <span className="visually-hidden">character {at + 1}: </span>
        {message}
      </p>
    </div>
  );
}
