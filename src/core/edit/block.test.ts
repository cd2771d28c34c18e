import fc from 'fast-check';
import { fernhollow } from '../demo/demos';
import { anyDesign } from '../testing/networks';
import { copyBlock, numberedOn, pasteBlock, readBlock } from './block';
import { editAll } from './edit';
import type { SwitchId } from '../model/ids';
import { readDesignText } from '../model/read';
import type { Design } from '../model/document';
import { writeDesign } from '../model/derive/write';
import { parts } from '../testing/runs';

const pasted = (design: Design, ids: readonly string[]) => {
  const block = copyBlock(design, new Set(ids as SwitchId[]));
  if (!block) throw new Error('nothing to copy');
  const edited = editAll(design, pasteBlock(design, block, { x: 40, y: 30 }).commands);
  if (!edited.ok) throw new Error(`${edited.error.path}: ${edited.error.found}`);
  return edited.value.design;
};
const unique = (values: readonly unknown[]) => expect(new Set(values).size).toBe(values.length);

describe('a pasted block', () => {
  it.each(parts(2, 50))('never collides, however often and from whatever it is pasted (%#)', (runs) => {
    fc.assert(
      fc.property(
        anyDesign,
        fc.array(fc.array(fc.nat(), { minLength: 1 }), { minLength: 1, maxLength: 4 }),
        (start, picks) => {
          let design = start;
          const doubled = start.switches.length - new Set(start.switches.map((sw) => sw.mac)).size;
          for (const pick of picks) {
            const before = design;
            const chosen = [...new Set(pick.map((i) => design.switches[i % design.switches.length]!.id))];
            design = pasted(design, chosen);
            expect(readDesignText(writeDesign(design)).ok).toBe(true);
            unique(design.switches.map((sw) => sw.name ?? sw.id));
            expect(design.switches.length - new Set(design.switches.map((sw) => sw.mac)).size).toBe(doubled);
            const within = before.links.filter(
              (link) => chosen.includes(link.a.switch) && chosen.includes(link.b.switch),
            );
            expect(design.links.length).toBe(before.links.length + within.length);
            expect(design.switches.slice(0, before.switches.length)).toEqual(before.switches);
          }
        },
      ),
      runs,
    );
  });

  it('brings cables among its switches and hosts that hang on them alone', () => {
    const design = pasted(fernhollow(), ['dome-east', 'dome-west', 'array-hut']);
    expect(design.switches.slice(8).map((sw) => sw.id)).toEqual(['dome-east-2', 'dome-west-2', 'array-hut-2']);
    expect(design.links.slice(15).map(({ a, b }) => `${a.switch} ${b.switch}`)).toEqual([
      'dome-east-2 array-hut-2',
      'dome-west-2 array-hut-2',
    ]);
    expect(design.hosts.slice(9).map((host) => host.name ?? host.id)).toEqual([
      'Mount controller east-2',
      'Mount controller west-2',
      'Weather mast-2',
    ]);
    expect(design.switches[8]?.position).toEqual({
      x: fernhollow().switches[3]!.position!.x + 40,
      y: fernhollow().switches[3]!.position!.y + 30,
    });
  });

  it('goes over the clipboard as text, into another design too', () => {
    const block = copyBlock(fernhollow(), new Set(['lodge' as SwitchId]))!;
    const read = readBlock(JSON.stringify(block));
    expect(read.ok && read.value).toEqual(block);
    expect(readBlock('hello').ok || readBlock('{}').ok).toBe(false);
    expect(copyBlock(fernhollow(), new Set())).toBeNull();
  });
});

it('names are numbered on', () => {
  const used = new Set(['dome-3', 'hut-09']);
  expect([
    numberedOn(used, 'dome-2'),
    numberedOn(used, 'dome-2'),
    numberedOn(used, 'hut-08'),
    numberedOn(used, 'lodge'),
  ]).toEqual(['dome-4', 'dome-5', 'hut-10', 'lodge-2']);
});
