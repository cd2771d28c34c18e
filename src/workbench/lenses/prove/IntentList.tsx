'use client';
/** The intents of the design, those that are broken first: each with why, the way there, and what would mend it. */
import { useState } from 'react';
import { SETS, holdingNow, linesOfIntents, newTo, type Suggestion } from '../../../core/analysis/intents/sets';
import { Settled } from '../../../core/analysis/intents/settled';
import { ok } from '../../../core/base/result';
import { useClockStore } from '../../state/clock';
import { useWorkbench, useWorkbenchStore } from '../../state/context';
import { mayEdit } from '../../state/looking';
import { useStandings, useWaiting, type Standing } from '../../state/standings';
import type { WorkbenchStore } from '../../state/store';
import { TextSetting } from '../../ui/fields';
import styles from '../../ui/table.module.css';
import { TextButton } from '../../ui/TextButton';
import { counted } from '../../../core/base/words';
import { placeOf } from '../shared/places';
import { addIntents } from './addIntents';
import own from './prove.module.css';
import { playFailure, showFailure } from './showFailure';

/** Most intents drawn at once. */
const MOST = 200;

const ORDER: readonly Standing['is'][] = ['broken', 'unreadable', 'waits', 'holds'];
const WORDS: Readonly<Record<Standing['is'], string>> = {
  broken: 'broken',
  unreadable: 'not readable',
  waits: 'not known yet',
  holds: 'holds',
};

export function IntentList() {
  const store = useWorkbenchStore();
  const viewing = !useWorkbench(mayEdit);
  const standings = useStandings();
  const waiting = useWaiting();
  const [said, say] = useState<string | null>(null);
  const sorted = [...standings].sort((a, b) => ORDER.indexOf(a.is) - ORDER.indexOf(b.is));
  const count = (is: Standing['is']): number => standings.filter((each) => each.is === is).length;
  const add = (suggest: (of: Settled) => readonly Suggestion[], byId: boolean) => {
    const { newest, solution, act } = store.getState();
    if (!solution) return;
    const now = newest();
    const fresh = newTo(now, suggest(new Settled(solution)), byId);
    say(fresh.length === 0 ? 'The design has all of these already.' : act(...addIntents(now, fresh)));
  };
  const copy = async () => {
    await navigator.clipboard.writeText(linesOfIntents(store.getState().newest()));
    say('Copied.');
  };
  return (
    <>
      <div className={styles.filter}>
        <span>
          {standings.length === 0
            ? 'No intents yet: write one in the line above the map, or begin with some.'
            : `${count('holds')} of ${counted(standings.length, 'intent')} hold${count('waits') > 0 ? `, ${count('waits')} not known yet` : ''}.`}
          {waiting !== null && count('waits') > 0 && ` Trying failures, ${Math.round(waiting * 100)} %…`}
        </span>
        {!viewing && (
          <>
            {SETS.map(({ name, says, lines }) => (
              <TextButton key={name} does="edit" onClick={() => add(() => lines, false)} title={says}>
                add {name}
              </TextButton>
            ))}
            <TextButton
              does="edit"
              onClick={() => add(holdingNow, true)}
              title="who is root and standby now, bundles with their members, and what else holds"
            >
              add what holds now
            </TextButton>
          </>
        )}
        {standings.length > 0 && (
          <TextButton does="plain" onClick={() => void copy()}>
            copy as lines
          </TextButton>
        )}
        {said && <span role="status">{said}</span>}
      </div>
      <ul className={styles.findings} aria-label="Intents">
        {sorted.slice(0, MOST).map((standing) => (
          <IntentRow key={standing.intent.id} standing={standing} viewing={viewing} />
        ))}
      </ul>
      {sorted.length > MOST && <p className={styles.empty}>and {sorted.length - MOST} more that hold or wait</p>}
    </>
  );
}

function IntentRow({ standing, viewing }: { readonly standing: Standing; readonly viewing: boolean }) {
  const store = useWorkbenchStore();
  const act = useWorkbench((state) => state.act);
  const [noting, setNoting] = useState(false);
  const { intent, text, is, why, way, failure, timed, brokenBy } = standing;
  const clock = useClockStore();
  const { id, severity, note } = intent;
  return (
    <li data-intent={is}>
      <div className={own.intent}>
        <span className={own.state} data-is={is} data-severity={severity}>
          {WORDS[is]}
        </span>
        <div>
          <p>
            {text} {severity === 'should' && <span className={styles.why}>(should)</span>}
          </p>
          {why !== '' && <p className={styles.why}>{why}</p>}
          {brokenBy !== null && <p className={styles.why}>It held until “{brokenBy}”.</p>}
          {noting ? (
            <TextSetting
              label="Note"
              value={note}
              read={(typed) => ok(typed.trim())}
              commit={(typed) => {
                setNoting(false);
                return act({ do: 'set-intent', intent: id, note: typed });
              }}
            />
          ) : (
            note !== '' && <p className={styles.why}>Note: {note}</p>
          )}
        </div>
      </div>
      <span className={own.ways}>
        {is === 'broken' && !viewing && way && 'commands' in way && (
          <TextButton does="edit" onClick={() => act(...way.commands)} title="one step, which can be undone">
            {way.label}
          </TextButton>
        )}
        {is === 'broken' && !viewing && way && 'wishes' in way && (
          <TextButton
            onClick={() => {
              const { setLens, askFor } = store.getState();
              setLens('Steer');
              askFor(way.wishes, way.trees);
            }}
            title="ways to do it, in the Steer view"
          >
            {way.label}
          </TextButton>
        )}
        {failure && !timed && (
          <TextButton
            onClick={() => showFailure(store, failure)}
            title="the map once that has failed and all has settled"
          >
            show the failure
          </TextButton>
        )}
        {failure && timed && (
          <TextButton onClick={() => playFailure(store, clock, failure)} title="on the timeline, in the Break view">
            play the failure
          </TextButton>
        )}
        {placeOf(standing) && <TextButton onClick={() => goTo(store, standing)}>go there</TextButton>}
        {!viewing && (
          <span className={own.small}>
            <TextButton
              does="plain"
              onClick={() => act({ do: 'set-intent', intent: id, severity: severity === 'must' ? 'should' : 'must' })}
            >
              {severity === 'must' ? 'make it a should' : 'make it a must'}
            </TextButton>
            <TextButton does="plain" aria-expanded={noting} onClick={() => setNoting(!noting)}>
              note
            </TextButton>
            <TextButton does="plain" onClick={() => act({ do: 'remove-intent', intent: id })}>
              remove
            </TextButton>
          </span>
        )}
      </span>
    </li>
  );
}

function goTo(store: WorkbenchStore, { at }: Standing): void {
  const { shownTrees, showTree, goTo: see } = store.getState();
  const [tree] = at.trees ?? [];
  if (tree && !at.trees?.some((id) => shownTrees.includes(id))) showTree(tree, 'alone');
  const place = placeOf({ at });
  if (place) see(place);
}
