/** Runs of scenarios, one at a time, and answers about the last one: what the simulator's worker does. */
import type { Run } from '../core/sim/run';
import type { LinkId, BridgePortId, SwitchId, TreeId } from '../core/model/ids';
import type { Scenario } from '../core/model/scenario';
import type { Design } from '../core/model/document';
import { fail, ok, type Result } from '../core/base/result';
import { bridgeKeys } from '../core/sim/engine/bridgeKeys';
import { captureOf } from '../core/sim/report/capture';
import { causeText } from '../core/sim/report/causeText';
import { traceOf, type Trace } from '../core/sim/trace/trace';
import { frameRows, type FrameRow } from '../core/sim/report/frameRows';
import { simulateShared, sizeOfRun } from '../core/sim/simulate';
import { compileNetwork, type Network } from '../core/topology/network';
import { encodePcapng } from '../core/wire/pcapng';
import type { WorkingHelper } from './helpers';
import { rehearsals, rehearse } from './rehearsal';

/** BPDUs that a run keeps for the list of frames and for captures. */
const MOST_FRAMES = 300_000;

/** Messages and timers after which a run is stopped, so that a page does not run out of memory. */
const MOST_EVENTS = 10_000_000;

/** Frames on a link, out of and into a port, or of switches; null: all. */
export type FrameScope =
  | { readonly kind: 'link'; readonly link: LinkId }
  | { readonly kind: 'port'; readonly switch: SwitchId; readonly port: BridgePortId }
  | { readonly kind: 'switches'; readonly switches: readonly SwitchId[] }
  | null;

/**
 * A runner; `give` is told of a buffer that may be handed over with an answer instead of copied, `helpers` are asked for where
 * a run is large enough to share it.
 */
export function createRunning(
  give: <T extends object>(answer: T, buffer: ArrayBuffer) => T,
  helpers: (size: number) => readonly WorkingHelper[] = () => [],
) {
  let kept: { readonly run: Run; readonly network: Network } | null = null;
  /** Counts runs and stops: a run goes on as long as it is the last one. */
  let turn = 0;
  /** Counts runs alone: what is kept is of the last one. */
  let runs = 0;
  /** The last run, with all frames; null where there is none, or another begins meanwhile. */
  const wholeRun = async () => {
    const asked = kept;
    await asked?.run.sent.complete().catch(() => (kept = asked === kept ? null : kept));
    return asked === kept ? asked : null;
  };
  return {
    /** Runs something for nothing: code that has run before is several times as fast. */
    async warm(design: Design): Promise<void> {
      const mine = (turn += 1);
      for (const scenario of rehearsals(design)) {
        const steps = rehearse(design, scenario);
        while (mine === turn && !steps.next(true).done) await new Promise((resolve) => setTimeout(resolve));
        for (const helper of helpers(sizeOfRun(design, scenario)))
          if (mine === turn) await helper.rehearse?.(design, scenario).catch(() => undefined);
      }
    },
    /** Runs a scenario; a run before it is forgotten. */
    async run(design: Design, scenario: Scenario, tell: (share: number) => void): Promise<Result<Trace, string>> {
      const mine = (turn += 1);
      const number = (runs += 1);
      kept = null;
      let looked = Date.now();
      const progress = (share: number): boolean | Promise<boolean> => {
        if (Date.now() - looked < 50) return mine === turn;
        tell(share);
        return new Promise((resolve) =>
          setTimeout(() => {
            looked = Date.now(); // here a stop has come in
            resolve(mine === turn);
          }),
        );
      };
      const options = { mostFrames: MOST_FRAMES, mostEvents: MOST_EVENTS, views: false, progress };
      const done = await simulateShared(design, scenario, helpers, options).catch(() =>
        // A helper has failed: what it would have run is run here.
        simulateShared(design, scenario, () => [], options),
      );
      if (!done.ok) return done;
      const run = done.value;
      if (number === runs) kept = { run, network: compileNetwork(run.design, null, []) };
      return ok(traceOf(run, scenario.actions, scenario.until));
    },
    stop(): void {
      turn += 1;
    },
    /** What made a port what it is at an instant, in words; null where it was so from the start. */
    why(
      tree: TreeId,
      sw: SwitchId,
      port: BridgePortId,
      t: number,
    ): { readonly t: number; readonly text: string } | null {
      if (!kept) return null;
      const { run, network } = kept;
      const change = run.recording.whyAt(treesOf(run).indexOf(tree), network.portIndexOf(sw, port), t);
      return change && { t: change.t, text: causeText(network, bridgeKeys(network), change.cause) };
    },
    async frames(
      scope: FrameScope,
      trees: readonly TreeId[] | null,
      most: number,
    ): Promise<Result<{ readonly rows: FrameRow[]; readonly left: number }, string>> {
      const whole = await wholeRun();
      if (!whole) return fail('Nothing has run yet.');
      const { run, network } = whole;
      const ids = treesOf(run);
      const inScope = scopeOf(network, scope);
      return ok(
        frameRows(
          network,
          ids,
          bridgeKeys(network),
          run,
          (port, tree) => inScope(port) && (trees === null || tree === null || trees.includes(ids[tree]!)),
          most,
        ),
      );
    },
    /** The frames of a scope as pcapng. */
    async capture(scope: FrameScope): Promise<Result<Uint8Array<ArrayBuffer>, string>> {
      const whole = await wholeRun();
      if (!whole) return fail('Nothing has run yet.');
      const { run, network } = whole;
      const bytes = Uint8Array.from(encodePcapng(captureOf(network, treesOf(run), run, scopeOf(network, scope))));
      return give(ok(bytes), bytes.buffer);
    },
  };
}

const treesOf = (run: Run): readonly TreeId[] => run.trees;

function scopeOf(network: Network, scope: FrameScope): (port: number) => boolean {
  if (!scope) return () => true;
  if (scope.kind === 'link') {
    const l = network.design.links.findIndex((link) => link.id === scope.link);
    return (port) => network.cable[port] === l || network.link[port] === l;
  }
  if (scope.kind === 'switches') {
    const own = new Set(scope.switches);
    const isOwn = (port: number): boolean => port >= 0 && own.has(network.switches[network.owner[port]!]!.id);
    return (port) => isOwn(port) || isOwn(network.far[port]!);
  }
  const own = network.portIndexOf(scope.switch, scope.port);
  const bundle = network.bundleOf[own]!;
  return (port) =>
    port === own ||
    network.far[port] === own ||
    network.plug[port] === own ||
    (bundle >= 0 && port === bundle) ||
    network.bundleOf[port] === own;
}
