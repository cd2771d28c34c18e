'use client';
/** What a practitioner would want to know about this design, each leading to its place on the map. */
import type { Finding } from '../../core/study/finding';
import { TextButton } from '../frame/TextButton';
import { useWorkbench } from '../state/context';
import { useFindings } from '../state/findings';
import type { Selection } from '../state/selection';
import styles from './drawer.module.css';

export function FindingsList() {
  const findings = useFindings();
  const select = useWorkbench((state) => state.select);
  const showTree = useWorkbench((state) => state.showTree);
  const shown = useWorkbench((state) => state.shownTrees);
  if (findings.length === 0) return <p className={styles.empty}>Nothing found: both ends of every cable match, and every root was chosen.</p>;
  const goTo = (finding: Finding) => {
    const [tree] = finding.at.trees ?? [];
    if (tree && !finding.at.trees?.some((id) => shown.includes(id))) showTree(tree, 'alone');
    const place = placeOf(finding);
    if (place) select(place);
  };
  return (
    <ul className={styles.findings} aria-label="Findings">
      {findings.map((finding, i) => (
        <li key={i}>
          <span>{finding.text}</span>
          <TextButton onClick={() => goTo(finding)}>go there</TextButton>
        </li>
      ))}
    </ul>
  );
}

function placeOf({ at }: Finding): Selection | null {
  if (at.link) return { kind: 'link', link: at.link };
  if (at.switch && at.port) return { kind: 'port', switch: at.switch, port: at.port };
  return at.switch ? { kind: 'switch', switch: at.switch } : null;
}
