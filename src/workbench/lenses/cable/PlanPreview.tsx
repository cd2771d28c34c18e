'use client';
/** What cabling lines will do, line by line, or where they are wrong. */
import type { Plan, PlannedLine } from '../../../core/cabling/plan';
import { sentencesOf } from '../../../core/edit/describe';
import type { Design } from '../../../core/model/document';
import { counted } from '../../ui/words/units';
import styles from './cabling.module.css';

/** Most effects shown at once. */
const MOST = 9;
/** How much of a long line is shown around a fault. */
const AROUND = 46;

export function PlanPreview({
  design,
  plan,
  text,
}: {
  readonly design: Design;
  readonly plan: Plan;
  readonly text: string;
}) {
  const wrong = plan.lines.filter((line) => line.fault);
  const source = text.replace(/\r\n?/g, '\n').split('\n');
  if (wrong.length > 0) {
    return (
      <div className={styles.preview} role="status" aria-live="polite">
        {wrong.slice(0, 3).map((line) => (
          <FaultView key={line.line} line={line} source={source[line.line] ?? ''} several={source.length > 1} />
        ))}
        {wrong.length > 3 && <p className={styles.soft}>and {wrong.length - 3} more lines with faults</p>}
      </div>
    );
  }
  const effects = sentencesOf(design, plan.commands, 'to come');
  return (
    <div className={styles.preview} role="status" aria-live="polite">
      {effects.length === 0 ? (
        <p className={styles.soft}>The design has all of this already.</p>
      ) : (
        <>
          <p className={styles.soft}>Enter, in one step:</p>
          <ul className={styles.effects}>
            {effects.slice(0, MOST).map((effect, i) => (
              <li key={i}>{effect.slice(0, 160)}</li>
            ))}
          </ul>
          {effects.length > MOST && <p className={styles.soft}>and {counted(effects.length - MOST, 'more change')}</p>}
        </>
      )}
    </div>
  );
}

/** The line with marks under the characters that are wrong, and why. */
function FaultView({
  line,
  source,
  several,
}: {
  readonly line: PlannedLine;
  readonly source: string;
  readonly several: boolean;
}) {
  const { at, length, message } = line.fault!;
  const start = Math.max(0, at - AROUND);
  const shown = source.slice(start, at + AROUND);
  const lead = start > 0 ? '…' : '';
  return (
    <div className={styles.fault}>
      {several && <span className={styles.soft}>line {line.line + 1}</span>}
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
