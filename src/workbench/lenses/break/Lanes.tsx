'use client';
/** The lanes of a run: state bars with role letters, pairs that are cut off, actions and topology changes. */
import { useClock, useClockStore, timeText } from '../../state/clock';
import { useWorkbenchStore } from '../../state/context';
import { Hand } from '../shared/time/Hand';
import { LaneList, LaneName, type LaneRoom } from '../shared/time/LaneList';
import type { ScaleKind } from '../shared/time/scale';
import { LaneBars } from './LaneBars';
import { LaneMarks, shortTime } from './LaneMarks';
import type { Lane } from './laneRows';

/** How wide the lanes' names are. */
const NAMES = 286;

export function Lanes({ lanes, kind }: { readonly lanes: readonly Lane[]; readonly kind: ScaleKind }) {
  const { moments, trace } = useClock((clock) => clock.player)!;
  const store = useWorkbenchStore();
  return (
    <LaneList
      lanes={lanes}
      names={NAMES}
      moments={moments}
      until={trace.until}
      kind={kind}
      head="actions, times, topology changes"
      tick={shortTime}
      marks={(room) => <LaneMarks room={room} />}
      name={(lane) => (
        <LaneName
          label={lane.label}
          more={lane.trees}
          width={NAMES}
          go={
            lane.kind === 'pair'
              ? null
              : () => store.getState().goTo({ kind: 'port', switch: lane.switch, port: lane.port })
          }
        />
      )}
      bars={(lane, { scale, axis }) => <LaneBars lane={lane} scale={scale} axis={axis} />}
      hand={(room) => <RunHand room={room} />}
      empty="No port of these trees changes, and nobody is cut off."
    />
  );
}

function RunHand({ room }: { readonly room: LaneRoom }) {
  const t = useClock((clock) => clock.t);
  const until = useClock((clock) => clock.player!.trace.until);
  const { seek, step, play } = useClockStore().getState();
  return <Hand time={{ t, until, seek, step, play, text: timeText }} room={room} />;
}
