import { fernhollow } from '../../../core/demo/demos';
import { vlanTree } from '../../../core/model/ids';
import { solutionOf } from '../../../core/testing/networks';
import { farEndsOf } from '../../state/farEnds';
import { matching } from '../../ui/FilterField';
import { cableRows, portRows } from './rows';

const design = fernhollow();
const solution = solutionOf(design);
const farEnd = farEndsOf(design);
const rows = portRows(solution, [vlanTree(15), vlanTree(25)], (sw, port) => farEnd(sw, port)?.text ?? '');

describe('the table of ports', () => {
  it('has a row for each port that is in a shown tree', () => {
    expect(rows.filter((row) => row.tree === 'VLAN 15')).toHaveLength(35);
    expect(rows.some((row) => row.tree === 'VLAN 25' && row.switch === 'array-hut')).toBe(false);
  });

  it('says of each what the map shows', () => {
    expect(rows.find((row) => row.switch === 'ridge-b' && row.port === '1')).toMatchObject({
      tree: 'VLAN 15',
      to: 'ridge-a port 1',
      role: 'alternate',
      state: 'discarding',
      cost: 2000,
      rootPathCost: 20_000,
      designatedBridge: 'ridge-a',
      designatedPort: '1',
    });
    expect(rows.find((row) => row.switch === 'lodge' && row.to === 'host Visitor kiosk')).toBeUndefined();
  });

  it('is filtered by the beginnings of words, in any order', () => {
    expect(new Set(matching(rows, 'alternate 25').map((row) => row.tree))).toEqual(new Set(['VLAN 25']));
    expect(matching(rows, 'nate')).toEqual([]);
    expect(matching(rows, '  ')).toBe(rows);
  });
});

describe('the table of cables', () => {
  it('has both ends of each, and says what is not up', () => {
    const cut = cableRows({ ...design, links: design.links.map((link, i) => ({ ...link, up: i > 0 })) });
    expect(cut[0]).toMatchObject({ a: 'ridge-a port 1', b: 'ridge-b port 1', cable: 'cut', speed: '10 Gb/s' });
    expect(cut[9]).toMatchObject({ cable: 'up', speed: '1 Gb/s', carriesA: 'trunk 1,15,35,65, native 1' });
  });
});
