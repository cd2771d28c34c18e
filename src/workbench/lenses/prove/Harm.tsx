'use client';
/** How much hangs on each link and switch: a band along a link, as wide as many ports change when it fails; and who is cut off by one thing alone. */
import { memo, useMemo } from 'react';
import type { FailureOutcome } from '../../../core/analysis/failures/everyFailure';
import type { LinkId, SwitchId } from '../../../core/model/ids';
import { MapLayer } from '../../map/MapLayer';
import type { LayerProps } from '../../map/geometry';
import { polyline } from '../../map/run';
import { Tags } from '../../map/tags';
import { useStandings, type Standing } from '../../state/standings';
import { useFollowing, useWorkbench } from '../../state/context';

/** Of a band, pixels: where nothing but its own ends changes, and where most changes. */
const WIDTH = { least: 5, most: 20 } as const;

interface LinkHarm {
  /** 0 to 1: of the ports that change by the worst link's failure. */
  readonly share: number;
  readonly cutOff: number;
}

export const hosts = ({ cutOff, lost }: FailureOutcome): number => cutOff.length + lost.length;

export function harmOfLinks(outcomes: readonly FailureOutcome[]): ReadonlyMap<LinkId, LinkHarm> {
  const cables = outcomes.flatMap((outcome) =>
    outcome.failure.kind === 'link' || outcome.failure.kind === 'member'
      ? [{ link: outcome.failure.link, outcome }]
      : [],
  );
  const most = Math.max(1, ...cables.map(({ outcome }) => outcome.ends));
  return new Map(
    cables.map(({ link, outcome }) => [link, { share: outcome.ends / most, cutOff: outcome.cutOff.length }]),
  );
}

/** What a tag beside a switch says: the hosts that it alone keeps in the network. */
export function harmOfSwitches(outcomes: readonly FailureOutcome[]): ReadonlyMap<SwitchId, string> {
  return new Map(
    outcomes.flatMap((outcome) =>
      outcome.failure.kind === 'switch' && hosts(outcome) > 0
        ? [[outcome.failure.switch, `${hosts(outcome)} alone`] as const]
        : [],
    ),
  );
}

const NONE: readonly FailureOutcome[] = [];
const useOutcomes = (): readonly FailureOutcome[] => {
  const present = useWorkbench((state) => state.looking.kind === 'present');
  const found = useFollowing((state) => state.failures.found);
  return present && found ? found.all.outcomes : NONE;
};

export const HarmBands = memo(function HarmBands({ lines }: LayerProps) {
  const outcomes = useOutcomes();
  const harm = useMemo(() => harmOfLinks(outcomes), [outcomes]);
  return (
    <MapLayer level={-1}>
      {lines.map((line) => {
        const own = harm.get(line.link);
        if (!own || line.loops) return null;
        const d = polyline([line.from, ...line.bends, line.to]);
        const width = WIDTH.least + (WIDTH.most - WIDTH.least) * own.share;
        return (
          <g key={line.link} data-harm={line.link} fill="none" strokeLinecap="butt">
            {own.cutOff > 0 && <path d={d} stroke="var(--ink)" strokeWidth={width + 4} />}
            {own.cutOff > 0 && <path d={d} stroke="var(--paper)" strokeWidth={width + 1.5} />}
            <path d={d} stroke="var(--ink)" strokeOpacity={0.13} strokeWidth={width} />
          </g>
        );
      })}
    </MapLayer>
  );
});

/** Beside each switch: the hosts that hang on it alone, and the intents that are broken there. */
export function tagTexts(
  outcomes: readonly FailureOutcome[],
  broken: readonly Pick<Standing, 'is' | 'at'>[],
): ReadonlyMap<SwitchId, string> {
  const counts = new Map<SwitchId, number>();
  for (const { is, at } of broken)
    if (is === 'broken' && at.switch) counts.set(at.switch, (counts.get(at.switch) ?? 0) + 1);
  const alone = harmOfSwitches(outcomes);
  return new Map(
    [...new Set([...alone.keys(), ...counts.keys()])].map((id) => [
      id,
      [...(counts.has(id) ? [`${counts.get(id)} broken`] : []), ...(alone.has(id) ? [alone.get(id)!] : [])].join(', '),
    ]),
  );
}

export const HarmTags = memo(function HarmTags({ boxes, lines }: LayerProps) {
  const outcomes = useOutcomes();
  const standings = useStandings();
  const texts = useMemo(() => tagTexts(outcomes, standings), [outcomes, standings]);
  return <Tags texts={texts} mark="data-alone" boxes={boxes} lines={lines} />;
});
