import fc from 'fast-check';
import { fernhollow, valleyStation } from '../../demo/demos';
import { editAll } from '../../edit/edit';
import { CST, vlanTree, type SwitchId, type TreeId } from '../../model/ids';
import { readDesignText } from '../../model/read';
import type { Answers, Design } from '../../model/document';
import { writeDesign } from '../../model/derive/write';
import { meshDesign, networkOf, solutionOf } from '../../testing/networks';
import { viewTree, type TreeView } from '../../tree/settled';
import { PRACTICE_LEVELS, practiceDesign, practiceTree, type PracticeLevel } from './practice';
import { markWorksheet, sheetOf } from './worksheet';
import { tries } from '../../testing/runs';

/** The computed tree written down as answers. */
function perfect(design: Design, id: TreeId): Answers {
  const { network, trees } = solutionOf(design);
  const view: TreeView = viewTree(
    network,
    trees.find((tree) => tree.id === id)!,
  );
  const switches = Object.fromEntries(
    Object.entries(view.switches).map(([sw, { rootPathCost, ports }]) => [
      sw,
      {
        rootPathCost,
        ports: Object.fromEntries(
          Object.entries(ports).flatMap(([port, part]) =>
            'role' in part ? [[port, { role: part.role as 'root', state: part.state }]] : [],
          ),
        ),
      },
    ]),
  );
  return { root: Object.values(view.switches)[0]?.root, switches };
}
const practice = (level: PracticeLevel, number: number): Design => {
  const made = practiceDesign(level, number);
  if (!made.ok) throw new Error(made.error);
  return made.value;
};
const FAR: Readonly<Record<string, string>> = {
  'a 1': 'b 1',
  'a 2': 'c 2',
  'b 1': 'a 1',
  'b 2': 'c 1',
  'c 1': 'b 2',
  'c 2': 'a 2',
};
const triangle = networkOf({ a: {}, b: {}, c: {} }, ['a 1 = b 1', 'b 2 = c 1', 'c 2 = a 2']);

describe('a worksheet', () => {
  it('gives full marks to the computed tree, and none to a blank one', () => {
    fc.assert(
      fc.property(meshDesign, (design) => {
        const { id } = solutionOf(design).trees[0]!;
        const full = markWorksheet(design, id, perfect(design, id));
        expect(full.marks.filter((mark) => !mark.right)).toEqual([]);
        expect(full.right).toBe(full.of);
        const blank = markWorksheet(design, id, { switches: {} });
        expect(blank).toMatchObject({ right: 0, of: full.of });
        expect(blank.marks.every((mark) => mark.given === null && mark.why !== '')).toBe(true);
      }),
      { numRuns: tries(25) },
    );
  });

  it('of the CIST asks for external costs, of an instance for master ports too', () => {
    for (const id of ['mst:0', 'mst:1', 'mst:2'] as TreeId[]) {
      const full = markWorksheet(valleyStation(), id, perfect(valleyStation(), id));
      expect(full.marks.filter((mark) => !mark.right)).toEqual([]);
      expect(full.marks.some((mark) => mark.computed === 'master')).toBe(id !== 'mst:0');
    }
    const why = (sw: string) =>
      markWorksheet(valleyStation(), 'mst:0' as TreeId, { switches: {} }).marks.find(
        (mark) => mark.field === 'rootPathCost' && mark.switch === sw,
      )!;
    expect(why('orchard')).toMatchObject({
      computed: '0',
      why: 'Its way to the root stays inside of its region, where no external cost is added: 0.',
    });
    expect(why('ferry')).toMatchObject({
      computed: '20000',
      why: 'The costs of the ports toward the root that leave a region add up: 20\u202f000 at ferry port 1.',
    });
    expect(
      sheetOf(valleyStation(), 'mst:0' as TreeId)
        .find((sw) => sw.switch === 'weir')!
        .ports.map(({ port, inside }) => [port, inside]),
    ).toEqual([
      ['1', true],
      ['2', true],
      ['3', true],
      ['4', true],
      ['5', false],
    ]);
  });

  it('asks for what is cabled, and gives what it follows from, but no answer', () => {
    expect(sheetOf(triangle, CST)).toEqual(
      ['a', 'b', 'c'].map((name, i) => ({
        switch: name,
        name,
        bridgeId: `32768.02:00:00:00:00:0${i + 1}`,
        ports: [1, 2].map((n) => ({
          port: String(n),
          cost: 20_000,
          inside: false,
          identifier: `128.${n}`,
          to: FAR[`${name} ${n}`],
        })),
      })),
    );
    expect(sheetOf(fernhollow(), vlanTree(15)).map((sw) => sw.name)).toContain('array-hut');
    expect(sheetOf(fernhollow(), vlanTree(99))).toEqual([]);
  });

  it('names each wrong answer with its why', () => {
    const answers = perfect(triangle, CST);
    const wrong = markWorksheet(triangle, CST, {
      root: 'b' as SwitchId,
      switches: {
        ...answers.switches,
        c: {
          rootPathCost: 40_000,
          ports: { 1: { role: 'root', state: 'discarding' }, 2: { role: 'root', state: 'discarding' } },
        },
      },
    }).marks.filter((mark) => !mark.right);
    expect(wrong.map(({ field, switch: sw, port, given, computed }) => [field, sw, port, given, computed])).toEqual([
      ['root', null, null, 'b', 'a'],
      ['rootPathCost', 'c', null, '40000', '20000'],
      ['role', 'c', '1', 'root', 'alternate'],
      ['state', 'c', '2', 'discarding', 'forwarding'],
    ]);
    expect(wrong.map((mark) => mark.why)).toEqual([
      expect.stringContaining('a is root by MAC address alone'),
      'The costs of the ports toward the root add up: 20\u202f000 at c port 2.',
      expect.stringContaining('Alternate: both ends would offer this segment at 20\u202f000'),
      'A root port forwards once all has settled.',
    ]);
  });

  it('is kept with the design, written and read again, and can be forgotten', () => {
    const worksheet = { tree: CST, at: '2026-11-23T10:00:00Z', right: 12, of: 16, answers: perfect(triangle, CST) };
    const kept = editAll(triangle, [{ do: 'keep-worksheet', worksheet }]);
    if (!kept.ok) throw new Error(kept.error.found);
    const read = readDesignText(writeDesign(kept.value.design));
    expect(read).toEqual({ ok: true, value: kept.value.design });
    const forgotten = editAll(kept.value.design, [{ do: 'forget-worksheets' }]);
    expect(forgotten.ok && forgotten.value.design).toEqual(triangle);
    expect(solutionOf(kept.value.design).trees).toEqual(solutionOf(triangle).trees);
  });

  it('makes room for the newest after a hundred', () => {
    const worksheet = (right: number) => ({
      do: 'keep-worksheet' as const,
      worksheet: { tree: CST, at: '2026-11-23T10:00:00Z', right, of: 200, answers: { switches: {} } },
    });
    const kept = editAll(
      triangle,
      Array.from({ length: 103 }, (_, i) => worksheet(i)),
    );
    expect(kept.ok && [kept.value.design.worksheets.length, kept.value.design.worksheets[0]!.right]).toEqual([100, 3]);
  });
});

describe('practice networks', () => {
  it.each(PRACTICE_LEVELS)(
    'level %i: always legal, one island, something blocks, the same for the same number',
    (level) => {
      fc.assert(
        fc.property(fc.integer({ min: 0, max: 999_999 }), (number) => {
          const design = practice(level, number);
          expect(readDesignText(writeDesign(design))).toEqual({ ok: true, value: design });
          expect(practice(level, number)).toEqual(design);
          const { marks } = markWorksheet(design, practiceTree(level), { switches: {} });
          expect(marks.filter((mark) => mark.field === 'rootPathCost')).toHaveLength(design.switches.length);
          expect(marks.some((mark) => mark.computed === 'alternate')).toBe(true);
        }),
        { numRuns: tries(20) },
      );
    },
  );
  it('differ from number to number', () =>
    expect(new Set(Array.from({ length: 30 }, (_, i) => JSON.stringify({ ...practice(2, i), name: '' }))).size).toBe(
      30,
    ));
  it('ask more from level to level', () => {
    const blanks = PRACTICE_LEVELS.map(
      (level) => markWorksheet(practice(level, 7), practiceTree(level), { switches: {} }).of,
    );
    expect(blanks).toEqual([...blanks].sort((x, y) => x - y));
  });
  it.each([-1, 1.5, 1_000_000])('refuse the number %d', (number) => expect(practiceDesign(1, number).ok).toBe(false));
});
