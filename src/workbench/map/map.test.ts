import fc from 'fast-check';
import { fernhollow } from '../../core/demo/demos';
import { edit } from '../../core/edit/edit';
import { commandSchema } from '../../core/edit/commands';
import { anyDesign } from '../../core/testing/networks';
import { boundsOf, layOutMap, positionsOf, skeletonOf } from './geometry';
import { movedText } from './MovedBar';
import { courseOf } from './run';
import { inWindow } from './seen';
import { strandStyle } from '../ui/strandStyle';
import { vlanTree, type PortId, type SwitchId } from '../../core/model/ids';

const skeleton = (design: Parameters<typeof skeletonOf>[0]) => skeletonOf(design, null);

describe('the layout of the map', () => {
  it('puts every cable end on the border of its switch, no two on the same spot', () => {
    fc.assert(
      fc.property(anyDesign, fc.integer({ min: 0, max: 6 }), (design, strands) => {
        const bones = skeleton(design);
        for (const { width, height, attachments } of layOutMap(bones, positionsOf(bones), { strands }).boxes) {
          for (const { at, side } of attachments) {
            expect(
              side === 'left' || side === 'right'
                ? at.x === (side === 'left' ? 0 : width)
                : at.y === (side === 'top' ? 0 : height),
            ).toBe(true);
            expect(at.x >= 0 && at.x <= width && at.y >= 0 && at.y <= height).toBe(true);
          }
          expect(new Set(attachments.map(({ at }) => `${at.x} ${at.y}`)).size).toBe(attachments.length);
        }
      }),
    );
  });

  it('keeps cables of the same pair side by side: they do not cross', () => {
    const bones = skeleton(fernhollow());
    const [one, two] = layOutMap(bones, positionsOf(bones), { strands: 2 }).lines;
    expect(Math.sign(one!.from.x - two!.from.x)).toBe(Math.sign(one!.to.x - two!.to.x));
  });

  it('holds everything within its bounds', () => {
    const bones = skeleton(fernhollow());
    const geometry = layOutMap(bones, positionsOf(bones), { strands: 1 });
    const bounds = boundsOf(bones, geometry);
    const all = { left: bounds.x, top: bounds.y, right: bounds.x + bounds.width, bottom: bounds.y + bounds.height };
    for (const line of geometry.lines) expect(inWindow(line, all)).toBe(true);
    // An empty map and one small switch have bounds of a size that does not blow them up.
    const one = skeleton({ ...fernhollow(), switches: fernhollow().switches.slice(0, 1), links: [], hosts: [] });
    for (const few of [skeleton({ ...fernhollow(), switches: [], links: [], hosts: [] }), one]) {
      const around = boundsOf(few, layOutMap(few, positionsOf(few), { strands: 1 }));
      expect(around).toMatchObject({ width: 640, height: 420 });
    }
  });

  it('gives switches without a place one of their own', () => {
    const design = fernhollow();
    const loose = {
      ...design,
      switches: design.switches.map(({ position: _, ...sw }) => ({ ...sw, position: undefined })),
    };
    const places = [...positionsOf(skeleton(loose)).values()].map(({ x, y }) => `${x} ${y}`);
    expect(new Set(places).size).toBe(design.switches.length);
  });

  it('stays where it is when an edit changes no place, name or cable', () => {
    const design = fernhollow();
    const bones = skeleton(design);
    const after = (input: object) => {
      const edited = edit(design, commandSchema.parse(input));
      if (!edited.ok) throw new Error(edited.error.path);
      return skeletonOf(edited.value.design, bones);
    };
    expect(after({ do: 'set-bridge-priority', switch: 'lodge', tree: null, priority: 0 })).toBe(bones);
    expect(after({ do: 'set-switch', switch: 'lodge', name: 'cabin' })).not.toBe(bones);
    expect(after({ do: 'set-link', link: 'l1', up: false })).not.toBe(bones);
  });
});

describe('a strand', () => {
  const line = { link: 'l' as never, from: { x: 0, y: 0 }, to: { x: 100, y: 0 }, loops: false };

  it('runs beside its link and stops short by what its ends need', () => {
    expect(courseOf(line, 7).path(5, 24)).toBe('M5 7L76 7');
    expect(courseOf(line, 7).to.out.x).toBe(-1);
  });

  it('goes up and over where a switch is cabled to itself', () => {
    const path = courseOf({ ...line, loops: true }, 0).path(0, 0);
    expect(path.match(/L/g)).toHaveLength(3);
    expect(path).toContain('-46');
  });

  it('is told from its neighbours by more than colour', () => {
    const styles = Array.from({ length: 24 }, (_, i) => JSON.stringify(strandStyle(i)));
    expect(new Set(styles).size).toBe(24);
    for (let i = 0; i < 5; i += 1) expect(strandStyle(i).dash).not.toBe(strandStyle(i + 1).dash);
  });
});

describe('what the last change moved, in words', () => {
  const end = (vid: number) => ({
    tree: vlanTree(vid),
    switch: 'a' as SwitchId,
    port: '1' as PortId,
    index: 0,
    before: null,
    after: null,
  });
  it.each([
    [[], [15], 'no end changed its role'],
    [[15, 15], [15, 25], '2 ends changed in VLAN 15, none in VLAN 25'],
    [[15], [15], '1 end changed in VLAN 15'],
    [[35, 45], [15], 'no end changed in VLAN 15; 2 in 2 other trees'],
    [[15, 25, 35], [15, 25], '1 end changed in VLAN 15, 1 in VLAN 25; 1 in 1 other tree'],
  ])('%j seen from %j: %s', (ends, shown, text) =>
    expect(movedText({ ends: ends.map(end) }, shown.map(vlanTree))).toBe(text),
  );
});
