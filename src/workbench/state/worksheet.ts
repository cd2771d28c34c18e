/** A worksheet that is open, one answer more, and what is kept of it while the page is closed. */
import type { BridgePortId, SwitchId, TreeId } from '../../core/model/ids';
import { answersSchema, type Answers } from '../../core/model/document';

type PortAnswer = Answers['switches'][string]['ports'][string];

const blank: Answers['switches'][string] = { ports: {} };

/** With another root; undefined leaves it blank. */
export const withRoot = (answers: Answers, root: SwitchId | undefined): Answers => ({ ...answers, root });

/** With another root path cost of a switch. */
export const withCost = (answers: Answers, sw: SwitchId, rootPathCost: number | undefined): Answers => ({
  ...answers,
  switches: { ...answers.switches, [sw]: { ...(answers.switches[sw] ?? blank), rootPathCost } },
});

/** With another role or state of a port. */
export function withPort(answers: Answers, sw: SwitchId, port: BridgePortId, change: PortAnswer): Answers {
  const own = answers.switches[sw] ?? blank;
  return {
    ...answers,
    switches: {
      ...answers.switches,
      [sw]: { ...own, ports: { ...own.ports, [port]: { ...own.ports[port], ...change } } },
    },
  };
}

const keyOf = (design: string, tree: TreeId): string => `knot-path worksheet ${design} ${tree}`;

/** Keeps answers for this tab of the browser; null forgets them. */
export function saveDraft(design: string, tree: TreeId, answers: Answers | null): void {
  if (answers === null) sessionStorage.removeItem(keyOf(design, tree));
  else sessionStorage.setItem(keyOf(design, tree), JSON.stringify(answers));
}

/** What was written before; blank where nothing was. */
export function readDraft(design: string, tree: TreeId): Answers {
  try {
    const read = answersSchema.safeParse(JSON.parse(sessionStorage.getItem(keyOf(design, tree)) ?? '{}'));
    if (read.success) return read.data;
  } catch {
    // not ours: clear
  }
  return { switches: {} };
}

/** The page of a design that opens with a worksheet, so that a practice network gives nothing away. */
export const worksheetPath = (design: string, tree: TreeId): string =>
  `/designs/${encodeURIComponent(design)}?worksheet=${encodeURIComponent(tree)}`;

/** The tree whose worksheet the address asks for. */
export const worksheetInUrl = (): TreeId | null =>
  new URLSearchParams(window.location.search).get('worksheet') as TreeId | null;

/** Takes the worksheet out of the address: loading the page again shows the trees. */
export function leaveWorksheetUrl(): void {
  if (worksheetInUrl()) window.history.replaceState(null, '', window.location.pathname);
}
