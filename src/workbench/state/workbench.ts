/** What the workbench's store holds and does. */
import type { RunState } from '../../core/modes/entity';
import type { Solution } from '../../core/tree/settled';
import type { Focus } from '../../core/analysis/focus/focus';
import type { Onlooker } from '../../contract/api';
import type { Command } from '../../core/edit/commands';
import type { BridgePortId, GroupId, SwitchId, TreeId } from '../../core/model/ids';
import type { Answers, Design } from '../../core/model/document';
import type { ObservedImport } from '../../core/exchange/neighbours/format';
import type { Result } from '../../core/base/result';
import type { Remedy } from '../../core/analysis/findings/finding';
import type { PortMargins } from '../../core/analysis/steering/margin';
import type { Wish } from '../../core/analysis/steering/wishes';
import type { Conversation } from '../../core/analysis/dialects/heard';
import type { Marked } from '../../core/analysis/practice/worksheet';
import type { Present } from './document';
import type { Folded } from './folding';
import type { Beside, Findings } from './beside';
import type { Judged } from './verdicts';
import type { FailureRuns, Failures } from './failures';
import type { KeptWrites } from './kept';
import type { Moved } from './moved';
import type { Item, Selection } from './selection';
import type { Lens } from './lens';
import type { Looking, View } from './looking';

/** A conversation that others pass on. */
export type Ride = Pick<Conversation, 'switch' | 'port' | 'returns' | 'ride'>;

/** Where switches stand on the map: at their own places, or hanging under the root of the tree that is shown. */
export type MapLayout = 'placed' | 'hung';

/** The design and all that was computed of it are those on the screen: of the present, or of what is looked at. */
export interface WorkbenchState extends Present {
  readonly id: string;
  /** The page is for looking alone. */
  readonly readOnly: boolean;
  /** What the screen looks at: nothing can be changed while that is not the present. */
  readonly looking: Looking;
  /** Other windows that look at this design. */
  readonly others: readonly Onlooker[];
  readonly findings: Findings;
  /** Whether the intents of the present design hold, as far as that does not hang on failures. */
  readonly verdicts: Beside<Judged>;
  /** What every failure of some kinds does to the present design. */
  readonly failures: Failures;
  /** The same run by the protocols, where an intent or somebody asks for it. */
  readonly runs: FailureRuns;
  /** Whether somebody has asked for the runs of every failure. */
  readonly runsWanted: boolean;
  /** Whether failures are to be tried two at a time as well. */
  readonly pairsWanted: boolean;
  /** What an earlier page did not send, to be taken or left. */
  readonly orphaned: readonly KeptWrites[];
  readonly shownTrees: readonly TreeId[];
  /** The trees that people chose, of which those that there are now are shown. */
  readonly chosenTrees: readonly TreeId[];
  readonly selection: Selection | null;
  readonly lens: Lens;
  /** The key of the table that is open; null for the first of the lens. */
  readonly drawer: { readonly tab: string | null; readonly open: boolean };
  readonly layout: MapLayout;
  /** The part of the network that the map shows; null for all of it. */
  readonly focus: Focus | null;
  /** Groups that the map shows as one box. */
  readonly folded: Folded;
  /** Whether the inspector is open. */
  readonly inspector: boolean;
  /** The worksheet that was compared last, shown beside the trees. */
  readonly marked: Marked | null;
  /** Ways of BPDUs through switches that have no part in them, for the map to show while they are asked about; else null. */
  readonly rides: readonly Ride[] | null;
  /** The step of the tour that is to be done next; null where none is taken. */
  readonly tour: number | null;
  readonly dialog: 'palette' | 'keys' | 'glossary' | null;
  /** What the map should bring into view; a new object each time it is asked. */
  readonly sight: { readonly item: Item } | { readonly switches: readonly SwitchId[] } | null;
  /** What was done, or why it could not be, with a way to get there all the same. */
  readonly advice: { readonly text: string; readonly remedy: Remedy | null } | null;
  /** What should block and what should carry, all at once; `trees` null: those shown. `asked` counts how often ways were asked for by pointing. */
  readonly wishes: { readonly list: readonly Wish[]; readonly trees: readonly TreeId[] | null; readonly asked: number };
  /** What turns the time of a view, for keys and the palette: a run's, or that of a network that is watched. */
  readonly clocks: ReadonlyMap<Lens, ClockControls>;
  /** What only the map can do; null while it is not there. */
  readonly controls: MapControls | null;
}

/** What the clock does for keys and the palette. */
export interface ClockControls {
  /** Whether a run is there to be played. */
  readonly ready: () => boolean;
  readonly step: (by: 1 | -1) => void;
  /** Plays so slowly that each change is seen, or halts. */
  readonly playOrHalt: () => void;
  readonly toStart: () => void;
}

/** What the map does for keys, buttons and the palette. */
export interface MapControls {
  readonly closer: () => void;
  readonly farther: () => void;
  readonly whole: () => void;
  readonly tidy: (by: 'tier' | 'root') => void;
  /** Where switches are as drawn. */
  readonly places: () => ReadonlyMap<SwitchId, { readonly x: number; readonly y: number }>;
  /** What the map draws, where, and the part of it in view: pixels at `scale`. */
  readonly drawn: () => {
    readonly design: Design;
    readonly places: ReadonlyMap<SwitchId, { readonly x: number; readonly y: number }>;
    readonly scale: number;
    readonly view: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
    /** Of the whole map, map units. */
    readonly width: number;
    /** The instant of a run that it shows, and which that is in words. */
    readonly instant: {
      readonly picture: Solution;
      readonly state: (tree: number, port: number) => RunState;
      readonly isHeld: (tree: number, port: number) => boolean;
      readonly when: string;
    } | null;
  } | null;
  /** The middle of what is in view. */
  readonly middle: () => { readonly x: number; readonly y: number };
}

export interface WorkbenchActions {
  /** Starts the solver on the design as it is. */
  start(): void;
  /** Ends the solver; `start` brings it back. */
  stop(): void;
  /** Applies commands as one step. Gives null, or a sentence that says why nothing was changed. */
  act(...commands: Command[]): string | null;
  undo(): void;
  redo(): void;
  select(selection: Selection | null): void;
  /** Selects a thing alone, or adds it to the selection, or takes it out. */
  pick(item: Item, how: 'alone' | 'more'): void;
  /** Selects a thing and brings it into view. */
  goTo(item: Item): void;
  advise(advice: WorkbenchState['advice']): void;
  /** Replaces the wishes. */
  wish(list: readonly Wish[], trees?: readonly TreeId[] | null): void;
  /** Replaces the wishes and looks for ways to fulfil them. */
  askFor(list: readonly Wish[], trees: readonly TreeId[]): void;
  setControls(controls: MapControls | null): void;
  setLayout(layout: MapLayout): void;
  setFocus(focus: Focus | null): void;
  /** Folds groups on the map, or unfolds them. */
  fold(groups: Iterable<GroupId>, how: 'fold' | 'unfold'): void;
  setTour(step: number | null): void;
  openDialog(dialog: WorkbenchState['dialog']): void;
  /** Shows another state in place of the present one; null goes back to now. */
  look(view: View | null): void;
  /** Hides every computed thing until the answers for a tree are compared, or put aside. */
  openWorksheet(tree: TreeId): void;
  answer(answers: Answers): void;
  /** Compares the answers with the computed tree, shows both, and keeps the result with the design. */
  compareWorksheet(): void;
  /** Closes the worksheet; what was written stays for the next time. */
  closeWorksheet(): void;
  /** How near a port's cost is to moving something in a tree; null where it is not in it, or while another state is looked at. */
  margin(tree: TreeId, sw: SwitchId, port: BridgePortId): Promise<PortMargins | null>;
  /** Makes an earlier revision the newest one. Gives null, or why not. */
  restore(target: number, design: Design): string | null;
  setLens(lens: Lens): void;
  /** Shows one tree alone, or adds it to or takes it from those shown. */
  showTree(tree: TreeId, how: 'alone' | 'toggle'): void;
  /** Shows the next or previous tree alone. */
  stepTree(by: 1 | -1): void;
  /** Marks the ends that part the present from another state. */
  mark(moved: Moved | null): void;
  forgetMoved(): void;
  openDrawer(tab: string): void;
  toggleDrawer(): void;
  toggleInspector(): void;
  /** Reads what switches reported, beside the page; the error is a sentence. */
  readObserved(text: string, seenOn: string | null): Promise<Result<ObservedImport, string>>;
  /** Looks for findings again, after that took too long. */
  findAgain(): void;
  /** Hears who else is there, null: no news of that, and what the newest revision on the server is. */
  heard(others: readonly Onlooker[] | null, revision: number | null): void;
  /** Goes on from the last good revision where later ones cannot be read. */
  mend(): void;
  /** Sends what an earlier page had not sent, or drops it. */
  takeOrphaned(kept: KeptWrites, how: 'send' | 'drop'): Promise<void>;
  /** How many changes the server has not taken yet. */
  /** The design with every change so far, though the screen may still wait for the trees of the last one. */
  newest(): Design;
  unsent(): number;
  /** The page is hidden or about to go: what waits for more is sent. */
  hurry(): void;
  /** Gives up on what is not saved, so that the page can be left without a question. */
  abandon(): void;
}

export type Workbench = WorkbenchState & WorkbenchActions;
