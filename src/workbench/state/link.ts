/** What is shown, as an address that shows it again: view, trees, selection, revision. */
import { selectionOf, itemsOf, stillThere, type Item } from './selection';
import { LENSES } from './lens';
import { revisionAt, revisionName } from './revisions';
import type { Workbench } from './workbench';
import type { WorkbenchStore } from './store';
import type { TreeId } from '../../core/model/ids';

/** Things that are named in an address; more would make it too long to be sent. */
const MOST = 20;

/** The names of the address's parts, once. */
const PARTS = { view: 'view', trees: 'trees', selected: 'selected', revision: 'revision' } as const;

/** `/designs/x?view=Steer&trees=vlan:15&selected=switch/lodge`; `to`: a page to change the design in, or to look at it. */
export function linkTo(
  { id, lens, shownTrees, selection, looking, readOnly }: Workbench,
  to: 'change' | 'read' = readOnly ? 'read' : 'change',
): string {
  const parts = new URLSearchParams({ [PARTS.view]: lens });
  if (shownTrees.length > 0) parts.set(PARTS.trees, shownTrees.slice(0, MOST).join(','));
  for (const item of itemsOf(selection).slice(0, MOST)) parts.append(PARTS.selected, itemText(item));
  if (looking.kind === 'revision') parts.set(PARTS.revision, String(looking.revision));
  return `/designs/${encodeURIComponent(id)}${to === 'read' ? '/read' : ''}?${parts.toString()}`;
}

/** A thing by its kind and its identifiers, which may hold any sign. */
function itemText(item: Item): string {
  const ids =
    item.kind === 'port'
      ? [item.switch, item.port]
      : [item.kind === 'link' ? item.link : item.kind === 'host' ? item.host : item.switch];
  return [item.kind, ...ids.map((id) => encodeURIComponent(id))].join('/');
}

function itemOf(text: string): Item | null {
  const [kind, first, second] = text.split('/').map(decoded);
  if (first === undefined || first === '') return null;
  if (kind === 'switch') return { kind, switch: first as never };
  if (kind === 'link') return { kind, link: first as never };
  if (kind === 'host') return { kind, host: first as never };
  return kind === 'port' && second !== undefined ? { kind, switch: first as never, port: second as never } : null;
}

function decoded(part: string): string {
  try {
    return decodeURIComponent(part);
  } catch {
    return part;
  }
}

/** Shows what an address asks for, as far as it is there, once there are trees; and takes it out of the address. */
export async function followLink(store: WorkbenchStore, search: string): Promise<void> {
  const parts = new URLSearchParams(search);
  const asked = Object.values(PARTS).filter((part) => parts.has(part));
  if (asked.length === 0) return;
  for (const part of asked) parts.delete(part);
  const rest = parts.toString();
  window.history.replaceState(null, '', `${window.location.pathname}${rest === '' ? '' : `?${rest}`}`);
  const wanted = new URLSearchParams(search);
  const lens = LENSES.find((each) => each === wanted.get(PARTS.view));
  if (lens) store.getState().setLens(lens);
  await solvedFirst(store);
  const revision = wanted.get(PARTS.revision);
  if (revision !== null && /^\d{1,9}$/.test(revision)) {
    const { id } = store.getState();
    const found = await revisionAt(id, Number(revision), revisionName(Number(revision), null));
    if (found.ok) store.getState().look({ ...found.value, kind: 'revision', moved: null });
  }
  const known = new Set(store.getState().solution?.trees.map(({ id }) => id));
  const trees = (wanted.get(PARTS.trees) ?? '').split(',').filter((tree): tree is TreeId => known.has(tree as TreeId));
  trees.forEach((tree, i) => {
    const { shownTrees, showTree } = store.getState();
    if (i === 0) showTree(tree, 'alone');
    else if (!shownTrees.includes(tree)) showTree(tree, 'toggle');
  });
  const items = wanted.getAll(PARTS.selected).flatMap((text) => itemOf(text) ?? []);
  // What a link names may be gone.
  const there = stillThere(store.getState().design, selectionOf(items));
  if (there) store.getState().select(there);
}

/** Until there are trees. */
const solvedFirst = (store: WorkbenchStore): Promise<void> =>
  new Promise((done) => {
    if (store.getState().solution) return done();
    const stop = store.subscribe(({ solution }) => {
      if (!solution) return;
      stop();
      done();
    });
  });
