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
  const port = (sw: string, id: string) =>
    ({ items: [{ kind: 'port', switch: sw, port: id }] }) as unknown as Parameters<typeof ridesBy>[1];
  expect(ridesBy(rides, port('hall-a', '3'), town.links)).toHaveLength(3);
});
