import { conversationsIn } from '../../core/analysis/dialects/heard';
import { townOffice } from '../../core/demo/demos';
import { solve } from '../../core/tree/solve';
import { ridesBy } from './rideSigns';

const town = townOffice();
const rides = conversationsIn(solve(town)).filter(({ ride }) => ride.length > 0);

it('the root’s BPDUs ride around the closet and back, over each of its cables in one direction', () => {
  const signs = ridesBy(rides, null, town.links);
  expect(signs.map(({ link, forward, returns }) => `${link} ${forward ? 'on' : 'back'} ${returns}`).sort()).toEqual([
    'stairs on true',
    'uplink-a on true',
    'uplink-b back true',
  ]);
});

it('those of a port alone are shown where it is selected', () => {
  const hall = town.switches.find(({ id }) => id === 'hall-a')!;
  const port = hall.ports.find(({ id }) => id === '3')!;
  expect(ridesBy(rides, { kind: 'port', switch: hall.id, port: port.id }, town.links)).toHaveLength(3);
});
