'use client';
/** What a practitioner would want to know about this design, each with its why, its place on the map and ways to end it. */
import { useCallback, useMemo, useState } from 'react';
import { firstFree } from '../../../core/base/firstFree';
import { decisionOn, openFirst, placeOf as decisionPlace } from '../../../core/analysis/findings/decided';
import type { Decision } from '../../../core/model/document';
import { Decide, Decided } from './Decide';
import type { Finding, Remedy } from '../../../core/analysis/findings/finding';
import { TextButton } from '../../ui/TextButton';
import { useWorkbench, useWorkbenchStore } from '../../state/context';
import { switchesOf } from '../../state/selection';
import { FINDINGS_SECONDS } from '../../state/solverClient';
import styles from '../../ui/table.module.css';
import { mayEdit } from '../../state/looking';
import { counted } from '../../../core/base/words';
import { useOfSelection } from './ofSelection';
import { placeOf } from './places';

/** Most findings drawn at once. */
const MOST = 100;

export function FindingsList() {
  const { kind, list: findings } = useWorkbench((state) => state.findings);
  const lookAgain = useWorkbench((state) => state.findAgain);
  const store = useWorkbenchStore();
  const viewing = !useWorkbench(mayEdit);
  const [refused, setRefused] = useState<string | null>(null);
  /** The list of which a remedy was taken: the next one belongs to what is found then. */
  const [mended, setMended] = useState<readonly Finding[] | null>(null);
  const design = useWorkbench((state) => state.design);
  const switchesIn = useCallback(
    (finding: Finding) => {
      const place = placeOf(finding);
      return place ? switchesOf(design, place) : [];
    },
    [design],
  );
  const { open, staying } = useMemo(() => openFirst(design, findings), [design, findings]);
  const { rows: wanted, choice } = useOfSelection(
    useMemo(() => [...open, ...staying], [open, staying]),
    switchesIn,
  );
  const [deciding, setDeciding] = useState<Finding | null>(null);
  const decide = (finding: Finding, decided: Decision['decided'], why: string) => {
    const known = decisionOn(design, finding);
    const used = new Set(design.decisions.map(({ id }) => Number(id.slice(1))));
    const id = known?.id ?? `d${firstFree(used)}`;
    const decision: Decision = { id, rule: finding.rule, at: decisionPlace(finding.at), decided, why };
    setRefused(store.getState().act({ do: 'decide', decision }));
    setDeciding(null);
  };
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
  const mend = ({ commands }: Remedy) => {
    const now = store.getState();
    // The screen may still wait for the trees of a change: what was found does not know of it.
    if (now.newest() !== now.design) return;
    const problem = now.act(...commands);
    setRefused(problem);
    if (problem === null) setMended(findings);
  };
  const goTo = (finding: Finding) => {
    const { shownTrees, showTree, goTo: see } = store.getState();
    const [tree] = finding.at.trees ?? [];
    if (tree && !finding.at.trees?.some((id) => shownTrees.includes(id))) showTree(tree, 'alone');
    const place = placeOf(finding);
    if (place) see(place);
  };
  const only = (finding: Finding) => {
    goTo(finding);
    store.getState().setFocus({ kind: 'around', switches: switchesIn(finding), hops: 1 });
  };
  return (
    <>
      {refused && (
        <p className={styles.fault} role="alert">
          {refused}
        </p>
      )}
      {choice && (
        <div className={styles.filter}>
          <span>
            {wanted.length === findings.length
              ? counted(findings.length, 'finding')
              : `${wanted.length} of ${counted(findings.length, 'finding')}`}
          </span>
          {choice}
        </div>
      )}
      <ul className={styles.findings} aria-label="Findings">
        {wanted.slice(0, MOST).map((finding, i) => (
          <li key={`${i} ${finding.text}`} data-stays={staying.includes(finding) || undefined}>
            <div>
              <p>{finding.text}.</p>
              <p className={styles.why}>{finding.why}</p>
              <Decided
                decision={decisionOn(design, finding)}
                again={viewing ? null : (id) => setRefused(store.getState().act({ do: 'undecide', decision: id }))}
              />
              {deciding === finding && !viewing && (
                <Decide
                  given={decisionOn(design, finding)}
                  decide={(decided, why) => decide(finding, decided, why)}
                  leave={() => setDeciding(null)}
                />
              )}
            </div>
            <span className={styles.remedies}>
              {!viewing &&
                finding.remedies.map((remedy) => (
                  // What is looked at still may have been mended already: its remedies belong to the design before.
                  <TextButton
                    does="edit"
                    key={remedy.label}
                    disabled={kind !== 'found' || mended === findings}
                    onClick={() => mend(remedy)}
                    title="one step, which can be undone"
                  >
                    {remedy.label}
                  </TextButton>
                ))}
              <span className={styles.ways}>
                {!viewing && deciding !== finding && (
                  <TextButton does="edit" onClick={() => setDeciding(finding)}>
                    decide
                  </TextButton>
                )}
                {placeOf(finding) && <TextButton onClick={() => goTo(finding)}>go there</TextButton>}
                {switchesIn(finding).length > 0 && (
                  <TextButton onClick={() => only(finding)} title="on the map only this, and what it is cabled to">
                    only this
                  </TextButton>
                )}
              </span>
            </span>
          </li>
        ))}
      </ul>
      {wanted.length > MOST && (
        <p className={styles.empty}>and {wanted.length - MOST} more; knot-path check lists all.</p>
      )}
    </>
  );
}
