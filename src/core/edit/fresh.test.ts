import fc from 'fast-check';
import { fernhollow } from '../demo/demos';
import { anyDesign, designOf } from '../testing/networks';
import { editAll } from './edit';
import { freshCable, freshSwitch } from './fresh';
import type { SwitchId } from '../model/ids';
import { tries } from '../testing/runs';

describe('what is new', () => {
  it('never collides with what is there: any number of switches and cables can be added', () => {
    fc.assert(
      fc.property(
        anyDesign,
        fc.array(fc.tuple(fc.nat(), fc.nat(), fc.constantFrom(100, 1000)), { maxLength: 12 }),
        (start, cables) => {
          let design = start;
          for (let i = 0; i < 3; i += 1) {
            const edited = editAll(design, [freshSwitch(design, { x: 0, y: 0 }).command]);
            if (!edited.ok) throw new Error(edited.error.path);
            design = edited.value.design;
          }
          for (const [a, b, speed] of cables) {
            const ids = design.switches.map((sw) => sw.id);
            const edited = editAll(
              design,
              freshCable(design, { switch: ids[a % ids.length]! }, { switch: ids[b % ids.length]! }, speed).commands,
            );
            if (!edited.ok) throw new Error(`${edited.error.path}: ${edited.error.found}`);
            design = edited.value.design;
          }
          expect(new Set(design.switches.map((sw) => sw.mac)).size).toBe(design.switches.length);
          for (const sw of design.switches)
            expect(new Set(sw.ports.map((port) => port.number)).size).toBe(sw.ports.length);
        },
      ),
      { numRuns: tries(50) },
    );
  });

  it('speaks what most switches speak, and RSTP where there are none', () => {
    expect(freshSwitch(fernhollow(), { x: 0, y: 0 }).command).toMatchObject({ switch: { dialect: 'per-vlan-rstp' } });
    expect(freshSwitch(designOf({}), { x: 0, y: 0 })).toMatchObject({
      id: 'switch-1',
      command: { switch: { dialect: 'rstp' } },
    });
  });

  it('uses a free port of the right speed before it adds one', () => {
    const ports = [
      { id: '1', number: 1, speed: 100 },
      { id: '2', number: 2 },
    ];
    const design = designOf({ switches: ['a', 'b'].map((id, i) => ({ id, mac: `02:00:00:00:00:0${i}`, ports })) });
    const [a, b] = ['a' as SwitchId, 'b' as SwitchId];
    expect(freshCable(design, { switch: a }, { switch: b }, 1000).commands).toMatchObject([
      { do: 'add-link', link: { a: { port: '2' }, b: { port: '2' } } },
    ]);
    expect(freshCable(design, { switch: a }, { switch: b }, 10_000).commands).toMatchObject([
      { do: 'add-port', port: { id: '3' } },
      { do: 'add-port' },
      { do: 'add-link' },
    ]);
  });
});
