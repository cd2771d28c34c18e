/** Where switches go: hung from a root, lined up, placed when new, and on the way between two layouts. */
import fc from 'fast-check';
import { fernhollow } from '../../core/demo/demos';
import { editAll } from '../../core/edit/edit';
import { planLines } from '../../core/cabling/plan';
import type { SwitchId } from '../../core/model/ids';
import { anyDesign, designOf, networkOf, solutionOf } from '../../core/testing/networks';
import { aligned, type Alignment } from '../state/align';
import { positionsOf, skeletonOf, type Point } from './geometry';
import { hungFromRoot } from './hung';
import { between, createMotion, eased } from './motion';
import { withPlaces } from './places';
import { tries } from '../../core/testing/runs';

const apart = (places: Iterable<Point>, dx: number, dy: number) => {
  const all = [...places];
  all.forEach((a, i) =>
    all.slice(i + 1).forEach((b) => expect(Math.abs(a.x - b.x) >= dx || Math.abs(a.y - b.y) >= dy).toBe(true)),
  );
};
const demo = fernhollow();
const solution = solutionOf(demo);
const tree = solution.trees[1]!;

describe('hung from the root', () => {
  it('puts every switch into the band of its root path cost, cheaper ones above, none on another', () => {
    fc.assert(
      fc.property(anyDesign, (design) => {
        const solved = solutionOf(design);
        for (const each of solved.trees) {
          const { positions, bands } = hungFromRoot(solved, each);
          expect(positions.size).toBe(design.switches.length);
          expect(bands.reduce((sum, band) => sum + band.switches, 0)).toBe(design.switches.length);
          apart(positions.values(), 200, 100);
          const costs = bands.flatMap((band) => band.cost ?? []);
          expect(costs).toEqual([...new Set(costs)].sort((a, b) => a - b));
          bands.forEach(
            (band, i) =>
              i > 0 && expect(band.y - band.half).toBeGreaterThanOrEqual(bands[i - 1]!.y + bands[i - 1]!.half - 1),
          );
          for (const [id, { y }] of positions) {
            const s = solved.network.switchIndex.get(id)!;
            const band = bands.find((b) => Math.abs(y - b.y) <= b.half)!;
            if (band.cost !== null) expect(each.rootPathCost[s]).toBe(band.cost);
          }
        }
      }),
      { numRuns: tries(20) },
    );
  });
  it('shows the demo in four bands under its root', () => {
    expect(hungFromRoot(solution, tree).bands.map((band) => [band.cost, band.switches])).toEqual([
      [0, 1],
      [20_000, 3],
      [22_000, 3],
      [42_000, 1],
    ]);
  });
});

describe('lining up', () => {
  const places = new Map(demo.switches.map((sw) => [sw.id, sw.position!]));
  const ids = demo.switches.map((sw) => sw.id);
  const after = (how: Alignment) => {
    const command = aligned(places, ids, how);
    return command?.do === 'move-switches' ? command.to.map((each) => each.position) : [];
  };
  it('moves along one axis only, and nothing twice', () => {
    expect(new Set(after('row').map((p) => p.y)).size).toBe(1);
    expect(new Set(after('column').map((p) => p.x)).size).toBe(1);
    const xs = after('spread-across').map((p) => p.x);
    const gaps = xs.slice(1).map((x, i) => x - xs[i]!);
    expect(Math.max(...gaps) - Math.min(...gaps)).toBeLessThanOrEqual(1);
    expect(aligned(places, ids.slice(0, 1), 'row')).toBeNull();
    const straight = new Map(ids.map((id, i) => [id, { x: i * 300, y: 0 }]));
    expect(aligned(straight, ids, 'row')).toBeNull();
  });
});

describe('new switches', () => {
  it('get places of their own near what they are cabled to', () => {
    const plan = planLines(demo, 'attic-[1-6] * lodge,workshop\nannex 1 = lodge 20');
    const edited = editAll(demo, withPlaces(demo, plan.commands));
    if (!edited.ok) throw new Error(edited.error.path);
    const all = positionsOf(skeletonOf(edited.value.design, null));
    expect(edited.value.design.switches.every((sw) => sw.position)).toBe(true);
    apart([...all.values()].slice(8), 200, 120);
    for (const spot of [...all.values()].slice(8))
      for (const old of [...all.values()].slice(0, 8)) apart([spot, old], 180, 100);
  });
  it('form a triangle where three are joined, not a line', () => {
    const plan = planLines(designOf({}), 'a 1 = b 1\nb 2 = c 1\nc 2 = a 2');
    const edited = editAll(designOf({}), withPlaces(designOf({}), plan.commands));
    if (!edited.ok) throw new Error(edited.error.path);
    expect(new Set(edited.value.design.switches.map((sw) => sw.position?.y)).size).toBe(2);
  });
});

describe('the move between layouts', () => {
  const at = (x: number): ReadonlyMap<SwitchId, Point> => new Map([['a' as SwitchId, { x, y: 0 }]]);
  const x = (places: ReadonlyMap<SwitchId, Point>) => places.get('a' as SwitchId)!.x;
  it('starts where the switch was and ends where it belongs', () => {
    expect([0, 0.5, 1].map(eased)).toEqual([0, 0.5, 1]);
    expect([0, 0.5, 1, 7].map((share) => x(between(at(0), at(100), share)))).toEqual([0, 50, 100, 100]);
    expect(x(between(new Map(), at(100), 0))).toBe(100);
  });
  it('runs when the layout changes, not when a switch is dragged', () => {
    const motion = createMotion();
    const [placed, dragged, hung] = [at(0), at(10), at(100)];
    expect(x(motion.places(placed, 'placed', 0))).toBe(0);
    expect(x(motion.places(dragged, 'placed', 10))).toBe(10);
    expect(x(motion.places(hung, 'hung', 20))).toBe(10);
    expect(motion.running()).toBe(true);
    const half = x(motion.places(hung, 'hung', 230));
    expect(half).toBeGreaterThan(10);
    expect(half).toBeLessThan(100);
    expect(x(motion.places(hung, 'hung', 500))).toBe(100);
    expect(motion.running()).toBe(false);
  });
});

it('a chain hangs as a chain', () => {
  const chain = networkOf({ a: { priority: 0 }, b: {}, c: {} }, ['a 1 = b 1', 'b 2 = c 1']);
  const solved = solutionOf(chain);
  expect([...hungFromRoot(solved, solved.trees[0]!).positions.values()].map((p) => p.y)).toEqual([0, 150, 300]);
});
