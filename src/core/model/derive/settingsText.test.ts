import fc from 'fast-check';
import { fernhollow } from '../../demo/demos';
import { anyDesign } from '../../testing/networks';
import { settingDifferences } from './compare';
import type { SwitchId } from '../ids';
import { switchLines } from './settingsText';

describe('the settings of a switch as text', () => {
  it('name each port with what it leads to, and what is set there below it', () => {
    const lines = switchLines(fernhollow(), 'ridge-b' as SwitchId);
    expect(lines[0]).toBe('switch ridge-b');
    expect(lines).toContain('  priority: 32768');
    expect(lines).toContain('  spanning tree mode: Per-VLAN rapid');
    const port = lines.indexOf('port 1, to ridge-a port 1');
    expect(lines.slice(port + 1, port + 4)).toContain('  speed, Mb/s: 10000');
    expect(lines.some((line) => line.startsWith('port 8, to host Image store'))).toBe(true);
  });

  it('differ wherever a comparison says that the switch does', () =>
    fc.assert(
      fc.property(anyDesign, anyDesign, (one, other) => {
        const [a, b] = [one.switches[0], other.switches[0]];
        fc.pre(a !== undefined && b !== undefined);
        const swapped = { ...one, switches: [{ ...b!, id: a!.id }, ...one.switches.slice(1)] };
        const differs = settingDifferences(one, swapped).some(
          ({ at, setting }) => at.switch === a!.id && setting !== 'name',
        );
        const same = JSON.stringify(switchLines(one, a!.id)) === JSON.stringify(switchLines(swapped, a!.id));
        if (differs) expect(same).toBe(false);
      }),
    ));

  it('are none of a switch that is not there', () =>
    expect(switchLines(fernhollow(), 'nobody' as SwitchId)).toEqual([]));
});
