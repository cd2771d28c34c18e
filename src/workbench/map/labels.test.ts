/** Labels of the map: none over another, none over a box, blocked ends before all others. */
import fc from 'fast-check';
import type { Role } from '../../core/tree/settled';
import { tries } from '../../core/testing/runs';
import type { Point } from './drawn';
import { LETTER, placeLabels, TEXT, textSize, type Labelled } from './labels';
import type { LinkStrand } from './linkStrands';
import { around, overlaps, type Rectangle } from './occupied';
import { atEnd, courseOf } from './run';
import { plainBox, plainLine } from './testing';

const strand = (treeIndex: number, ...roles: [Role, Role]): LinkStrand => ({
  treeIndex,
  label: String(treeIndex),
  roles,
  moved: null,
  disputed: [false, false],
  guards: [null, null],
  states: null,
});

const point = fc.record({ x: fc.integer({ min: 0, max: 600 }), y: fc.integer({ min: 0, max: 400 }) });
const role = fc.constantFrom<Role>('root', 'designated', 'alternate', 'backup');
const anyLinks = fc
  .array(fc.tuple(point, point, fc.array(fc.tuple(role, role), { minLength: 1, maxLength: 4 }), fc.boolean()), {
    maxLength: 14,
  })
  .map((links) =>
    links.map(([from, to, roles, cut], i): Labelled => ({
      line: plainLine(`l${i}`, from, to),
      strands: roles.map((both, tree) => strand(tree, ...both)),
      text: cut ? 'cut' : null,
    })),
  );

/** The rectangles of what is placed, by link and kind. */
function rectanglesOf(links: readonly Labelled[], placed: ReturnType<typeof placeLabels>): Rectangle[] {
  return links.flatMap(({ line, strands, text }) => {
    const labels = placed.get(line.link)!;
    const merged = (labels.merged ?? []).map(({ at, text: letter }) => {
      const { width, height } = textSize(letter, TEXT.size);
      return around(at, width, height);
    });
    const own = strands.flatMap((each, place): Rectangle[] => {
      const run = courseOf(line, (place - (strands.length - 1) / 2) * line.gap);
      const letters = [run.from, run.to].flatMap((end, side) => {
        const away = labels.letters[each.treeIndex]![side];
        return away == null ? [] : [around(atEnd(end, away), LETTER.width, LETTER.height)];
      });
      const share = labels.trees[each.treeIndex];
      const size = textSize(each.label, TEXT.tree);
      return share == null ? letters : [...letters, around(run.along(share), size.width, size.height)];
    });
    own.push(...merged);
    if (text === null || labels.text === null) return own;
    const size = textSize(text, TEXT.size);
    return [...own, around(courseOf(line, 0).along(labels.text), size.width, size.height)];
  });
}

it('lays no label over another or over a box', () => {
  fc.assert(
    fc.property(anyLinks, fc.array(point, { maxLength: 5 }), (links, spots) => {
      const boxes = spots.map((at: Point, i) => plainBox(`b${i}`, at));
      const rectangles = [
        ...boxes.map(({ centre, width, height }) => around(centre, width, height)),
        ...rectanglesOf(links, placeLabels(links, boxes, [])),
      ];
      const over = rectangles.flatMap((one, i) =>
        i < boxes.length ? [] : rectangles.slice(0, i).filter((two) => overlaps(one, two)),
      );
      expect(over).toEqual([]);
    }),
    { numRuns: tries(60) },
  );
});

it('gives way to blocked ends: one that finds no room meets none but others of its kind', () => {
  // Two links so near to each other that only one of the letters fits at each end.
  const [one, two] = [
    plainLine('one', { x: 0, y: 0 }, { x: 90, y: 0 }),
    plainLine('two', { x: 0, y: 6 }, { x: 90, y: 6 }),
  ];
  const placed = placeLabels(
    [
      { line: one, strands: [strand(0, 'designated', 'root')], text: null },
      { line: two, strands: [strand(0, 'designated', 'alternate')], text: null },
    ],
    [],
    [],
  );
  expect(placed.get(two.link)!.letters[0]![1]).not.toBeNull();
  expect(placed.get(one.link)!.letters[0]![1]).toBeNull();
});

it('leaves out what has no room on a short link, and never passes its middle', () => {
  const placed = placeLabels(
    [
      {
        line: plainLine('l', { x: 0, y: 0 }, { x: 50, y: 0 }),
        strands: [strand(0, 'root', 'designated')],
        text: 'no signal',
      },
    ],
    [],
    [],
  );
  expect(placed.values().next().value).toEqual({ letters: { 0: [null, null] }, trees: { 0: null }, text: null });
});

it('keeps clear of the bands of bundles', () => {
  const line = plainLine('l', { x: 0, y: 0 }, { x: 200, y: 0 });
  const links = [{ line, strands: [strand(0, 'root', 'designated')], text: null }];
  expect(placeLabels(links, [], []).get(line.link)!.letters[0]).toEqual([34, 34]);
  expect(placeLabels(links, [], [{ x: 34, y: 0 }]).get(line.link)!.letters[0]).toEqual([47, 34]);
});

it('lets no line run over a label: texts go where no later line crosses, or are left out', () => {
  const long = plainLine('long', { x: 0, y: 0 }, { x: 300, y: 0 });
  const across = (x: number, id: string) => plainLine(id, { x, y: -80 }, { x, y: 80 });
  const said = (later: ReturnType<typeof plainLine>[]) =>
    placeLabels(
      [{ line: long, strands: [], text: '1 Gb/s' }, ...later.map((line) => ({ line, strands: [], text: null }))],
      [],
      [],
    ).get(long.link)!.text;
  expect(said([])).toBe(0.5);
  expect(said([across(150, 'a')])).toBe(0.4);
  expect(said([90, 120, 150, 180, 210].map((x) => across(x, `a${x}`)))).toBeNull();
});

it('writes one letter for trees that agree at an end, and each its own where they differ or there is no room', () => {
  const long = plainLine('long', { x: 0, y: 0 }, { x: 400, y: 0 });
  const strands = [strand(0, 'root', 'designated'), strand(1, 'root', 'alternate'), strand(2, 'root', 'designated')];
  const labels = placeLabels([{ line: long, strands, text: null }], [], []).get(long.link)!;
  expect(labels.merged?.map(({ text }) => text)).toEqual(['R 0,1,2', 'D 0,2']);
  expect([0, 1, 2].map((tree) => labels.letters[tree])).toEqual([
    [null, null],
    [null, expect.any(Number)],
    [null, null],
  ]);
  const named = strands.map((each, i) => ({ ...each, label: String(10 + i) }));
  expect(
    placeLabels([{ line: long, strands: named, text: null }], [], [])
      .get(long.link)!
      .merged?.map(({ text }) => text),
  ).toEqual(['R 10-12', 'D 10,12']);
  const short = plainLine('short', { x: 0, y: 0 }, { x: 60, y: 0 });
  expect(placeLabels([{ line: short, strands, text: null }], [], []).get(short.link)!.merged).toEqual([]);
});
