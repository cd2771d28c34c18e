/** What cabling lines will do. */
import type { Plan } from '../../../core/cabling/plan';
import { sentencesOf } from '../../../core/edit/describe';
import type { Design } from '../../../core/model/document';
import { counted } from '../../../core/base/words';
import styles from '../shared/lines/line.module.css';

/** Most effects shown at once. */
const MOST = 9;

export function PlanPreview({ design, plan }: { readonly design: Design; readonly plan: Plan }) {
  const effects = sentencesOf(design, plan.commands, 'to come');
  if (effects.length === 0) return <p className={styles.soft}>The design has all of this already.</p>;
  return (
    <>
      <p className={styles.soft}>Enter, in one step:</p>
      <ul className={styles.effects}>
        {effects.slice(0, MOST).map((effect, i) => (
          <li key={i}>{effect.slice(0, 160)}</li>
        ))}
      </ul>
      {effects.length > MOST && <p className={styles.soft}>and {counted(effects.length - MOST, 'more change')}</p>}
    </>
  );
}
