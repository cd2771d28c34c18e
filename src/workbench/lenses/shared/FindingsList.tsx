'use client';
/** What a practitioner would want to know about this design, each with its why, its place on the map and ways to end it. */
import { useState } from 'react';
import type { Finding } from '../../../core/analysis/findings/finding';
import { TextButton } from '../../ui/TextButton';
import { useWorkbench, useWorkbenchStore } from '../../state/context';
import type { SwitchId } from '../../../core/model/ids';
import { switchesOf, type Item } from '../../state/selection';
import { FINDINGS_SECONDS } from '../../state/solverClient';
import styles from '../../ui/table.module.css';
import { atPresent } from '../../state/looking';

/** Most findings drawn at once. */
const MOST = 100;

export function FindingsList() {
  const { kind, list: findings } = useWorkbench((state) => state.findings);
  const lookAgain = useWorkbench((state) => state.findAgain);
  const store = useWorkbenchStore();
  const viewing = !useWorkbench(atPresent);
  const [refused, setRefused] = useState<string | null>(null);
  if (kind === 'late' || kind === 'failed') {
    return (
      <p className={styles.empty} role="alert">
        {kind === 'late'
          ? `Looking for findings took longer than ${FINDINGS_SECONDS} seconds and was stopped; the rest of the page is not affected. `
          : 'The check for findings failed. '}
        <TextButton onClick={lookAgain}>look again</TextButton>
      </p>
    );
  }
  if (kind !== 'found' && findings.length === 0)
    return (
      <p className={styles.empty} role="status">
        Looking for findings.
      </p>
    );
  if (findings.length === 0)
    return (
      <p className={styles.empty}>
        Nothing found: both ends of every cable match, every VLAN reaches its hosts, and every root was chosen.
      </p>
    );
  const goTo = (finding: Finding) => {
    const { shownTrees, showTree, goTo: see } = store.getState();
    const [tree] = finding.at.trees ?? [];
    if (tree && !finding.at.trees?.some((id) => shownTrees.includes(id))) showTree(tree, 'alone');
    const place = placeOf(finding);
    if (place) see(place);
  };
  const switchesAt = (finding: Finding): SwitchId[] => {
    const place = placeOf(finding);
    return place ? switchesOf(store.getState().design, place) : [];
  };
  const only = (finding: Finding) => {
    goTo(finding);
    store.getState().setFocus({ kind: 'around', switches: switchesAt(finding), hops: 1 });
  };
  return (
    <>
      {refused && (
        <p className={styles.fault} role="alert">
          {refused}
        </p>
      )}
      <ul className={styles.findings} aria-label="Findings">
        {findings.slice(0, MOST).map((finding, i) => (
          <li key={`${i} ${finding.text}`}>
            <div>
              <p>{finding.text}.</p>
              <p className={styles.why}>{finding.why}</p>
            </div>
            <span className={styles.remedies}>
              {!viewing &&
                finding.remedies.map((remedy) => (
                  // What is looked at still may have been mended already: its remedies belong to the design before.
                  <TextButton
                    key={remedy.label}
                    disabled={kind !== 'found'}
                    onClick={() => setRefused(store.getState().act(...remedy.commands))}
                    title="one step that can be taken back"
                  >
                    {remedy.label}
                  </TextButton>
                ))}
              {placeOf(finding) && <TextButton onClick={() => goTo(finding)}>go there</TextButton>}
              {switchesAt(finding).length > 0 && (
                <TextButton onClick={() => only(finding)} title="on the map only this, and what it is cabled to">
                  only this
                </TextButton>
              )}
            </span>
          </li>
        ))}
      </ul>
      {findings.length > MOST && (
        <p className={styles.empty}>and {findings.length - MOST} more; knot-path check lists all.</p>
      )}
    </>
  );
}

function placeOf({ at }: Finding): Item | null {
  if (at.link) return { kind: 'link', link: at.link };
  if (at.switch && at.port) return { kind: 'port', switch: at.switch, port: at.port };
  return at.switch ? { kind: 'switch', switch: at.switch } : null;
}
