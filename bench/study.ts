/** Findings, comparing, neighbours, roots and cabling lines on 200 switches. */
import { linesOf } from '../src/core/cabling/print';
import { planLines } from '../src/core/cabling/plan';
import { editAll } from '../src/core/edit/edit';
import type { Design } from '../src/core/model/document';
import { designedCsv, readObservedCsv } from '../src/core/exchange/neighbours/table';
import { compareDesigns } from '../src/core/analysis/compare/compare';
import { findingsOf } from '../src/core/analysis/findings/findings';
import { neighboursOf } from '../src/core/analysis/neighbours/neighbours';
import { placeAll } from '../src/core/analysis/roots/placing';
import { ifSwitchDies, rootSwitches } from '../src/core/analysis/roots/rootLoss';
import { rootMatrix } from '../src/core/analysis/roots/rootMatrix';
import { solve } from '../src/core/tree/solve';
import type { Solution } from '../src/core/tree/settled';
import { benchNetwork } from './network';
import { report } from './report';
import { middle } from './session';

const FRAME_MS = 1000 / 60;

function solved(design: Design): Solution {
  const solution = solve(design);
  return solution;
}

/** The same network with something wrong at every tenth switch. */
function troubled(design: Design): Design {
  const edited = editAll(
    design,
    design.switches.flatMap((sw, i) =>
      i % 10 === 0 && sw.ports[0]
        ? [
            {
              do: 'set-port' as const,
              switch: sw.id,
              port: sw.ports[0].id,
              speed: 100,
              vlans: { mode: 'trunk' as const, native: 2, allowed: '1-20' },
            },
            { do: 'set-switch' as const, switch: sw.id, pathCost: 'short' as const },
          ]
        : [],
    ),
  );
  if (!edited.ok) throw new Error(edited.error.path);
  return edited.value.design;
}

export function benchStudy(): void {
  const plain = benchNetwork(200, 600, 32);
  const design = troubled(plain);
  const seen = readObservedCsv(designedCsv(plain));
  if (!seen.ok) throw new Error(seen.error);
  const observed = { ...design, observed: [...seen.value.observed] };
  const [before, after] = [solved(plain), solved(design)];
  const lines = linesOf(design).join('\n');
  const rows = (
    [
      ['findings', () => findingsOf(design, after).length],
      ['findings with every neighbour reported', () => findingsOf(observed, after).length],
      ['neighbours as drawn and as reported', () => neighboursOf(observed).length],
      ['comparing two revisions', () => compareDesigns(plain, design, [before, after]).settings.length],
      [
        'placing a root in every tree',
        () =>
          placeAll(
            after.network,
            after.trees.map((tree) => tree.id),
            [design.switches[7]!.id],
            'root',
          ).length,
      ],
      ['the matrix of roots', () => rootMatrix(after).groups.length],
      ['if a root dies', () => ifSwitchDies(after, rootSwitches(after)[0]!)?.losses.length ?? 0],
      ['the whole design as cabling lines, planned', () => planLines(design, lines).lines.length],
    ] as const
  ).map(([what, work]) => {
    const results = work();
    const times = Array.from({ length: 15 }, () => {
      const start = performance.now();
      work();
      return performance.now() - start;
    });
    return {
      what,
      results,
      'median (ms)': middle(times).toFixed(1),
      'of two frames': (middle(times) / (2 * FRAME_MS)).toFixed(2),
    };
  });
  report('On 200 switches, 600 links, 32 trees (aim for findings: within two frames, 33 ms)', rows);
}
