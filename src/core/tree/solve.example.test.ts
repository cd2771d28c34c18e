/** Hand-worked networks, the arithmetic in the words of each test. MACs rise in the order in which switches are named. */
import { at, designOf, networkOf, roleAt, settledTree, solutionOf } from '../testing/networks';
import { bridgeIdText } from '../topology/bridgeId';
import { explainRoot } from './explain/election';
import { treeOf } from './settled';
import { vlanTree } from '../model/ids';

const roles = (tree: ReturnType<typeof settledTree>, ...ends: string[]) =>
  ends.map((end) => roleAt(tree, end)).join(' ');

describe('a triangle of equal links', () => {
  const cables = ['a 1 = b 1', 'b 2 = c 1', 'c 2 = a 2'];

  it('blocks opposite the root, at the end of the bridge with the higher identifier', () => {
    // a has the lowest MAC and is root. b and c both reach it at 20 000; between them b's identifier is lower, so c blocks.
    const tree = settledTree(networkOf({ a: {}, b: {}, c: {} }, cables));
    expect(roles(tree, 'a 1', 'a 2', 'b 1', 'b 2', 'c 1', 'c 2')).toBe('D D R D A R');
    expect([at(tree, 'a'), at(tree, 'b'), at(tree, 'c')].map((sw) => sw.rootPathCost)).toEqual([0, 20_000, 20_000]);
  });

  it('lets priority come before MAC', () => {
    const tree = settledTree(networkOf({ a: {}, b: {}, c: { priority: 28672 } }, cables));
    expect(at(tree, 'a').root).toBe('c');
    expect(roles(tree, 'c 1', 'c 2', 'a 1', 'b 1')).toBe('D D D A');
  });

  it('goes the long way round when the short one costs more: 2 x 2000 beats one hop of 20 000', () => {
    const fast = { speed: 10_000 };
    const ports = { 'a 1': fast, 'b 1': fast, 'b 2': fast, 'c 1': fast };
    const tree = settledTree(networkOf({ a: {}, b: {}, c: {} }, cables, ports));
    expect(at(tree, 'c')).toMatchObject({ rootPathCost: 4000, rootPort: '1' });
    // On the slow link a offers 0, c only 4000: a is designated, c blocks.
    expect(roles(tree, 'a 2', 'c 2')).toBe('D A');
  });

  it('counts the receiving port only: a cost set at the sender changes nothing', () => {
    const tree = settledTree(networkOf({ a: {}, b: {}, c: {} }, cables, { 'a 2': { cost: 1 } }));
    expect(at(tree, 'c').rootPathCost).toBe(20_000);
    const steered = settledTree(networkOf({ a: {}, b: {}, c: {} }, cables, { 'c 2': { cost: 40_001 } }));
    // 40 001 straight against 20 000 + 20 000 through b.
    expect(at(steered, 'c')).toMatchObject({ rootPathCost: 40_000, rootPort: '1' });
  });

  it('loses its way round with a cut link, and every link when all are cut', () => {
    const design = networkOf({ a: {}, b: {}, c: {} }, cables);
    const cut = { ...design, links: design.links.map((link, i) => ({ ...link, up: i !== 2 })) };
    expect(roles(settledTree(cut), 'a 2', 'c 2', 'c 1')).toBe('- - R');
    expect(at(settledTree(cut), 'c').rootPathCost).toBe(40_000);
    const islands = settledTree({ ...design, links: design.links.map((link) => ({ ...link, up: false })) });
    expect(['a', 'b', 'c'].map((sw) => at(islands, sw).root)).toEqual(['a', 'b', 'c']);
  });
});

describe('parallel links', () => {
  const cables = ['a 1 = b 2', 'a 2 = b 1'];

  it('are parted by the port identifier of the sender, not of the receiver', () => {
    // b hears a's port 1 on its own port 2: the sender's 128.1 beats 128.2 before b's own numbers are looked at.
    expect(roles(settledTree(networkOf({ a: {}, b: {} }, cables)), 'b 2', 'b 1')).toBe('R A');
  });

  it('follow a port priority set at the sender', () => {
    expect(roles(settledTree(networkOf({ a: {}, b: {} }, cables, { 'a 2': { priority: 112 } })), 'b 2', 'b 1')).toBe(
      'A R',
    );
    expect(roles(settledTree(networkOf({ a: {}, b: {} }, cables, { 'b 1': { priority: 0 } })), 'b 2', 'b 1')).toBe(
      'R A',
    );
  });
});

describe('segments that are more than a cable', () => {
  it('has a backup where a switch is cabled to itself: the lower port number speaks', () => {
    const tree = settledTree(networkOf({ a: {} }, ['a 5 = a 3']));
    expect(roles(tree, 'a 3', 'a 5')).toBe('D B');
  });

  it('joins the neighbours of a switch that runs no spanning tree to one segment', () => {
    // hub joins a 1, b 1, b 2 and c 1. a is root and designated; b hears it twice and takes its own better port; c hears it too.
    const tree = settledTree(
      networkOf({ hub: { dialect: 'off' }, a: {}, b: {}, c: {} }, [
        'hub 1 = a 1',
        'hub 2 = b 1',
        'hub 3 = b 2',
        'hub 4 = c 1',
        'b 3 = c 2',
      ]),
    );
    expect(roles(tree, 'a 1', 'b 1', 'b 2', 'c 1', 'b 3', 'c 2')).toBe('D R A R D A');
    expect(at(tree, 'hub')).toBeUndefined();
    expect(at(tree, 'c').rootPathCost).toBe(20_000); // the hub adds nothing
    // Of two ports that hear the same offer the own port identifier decides: a priority on b's port 2 makes it the root port.
    const steered = settledTree(
      networkOf({ hub: { dialect: 'off' }, a: {}, b: {} }, ['hub 1 = a 1', 'hub 2 = b 1', 'hub 3 = b 2'], {
        'b 2': { priority: 16 },
      }),
    );
    expect(roles(steered, 'b 1', 'b 2')).toBe('A R');
  });

  it('gives a backup to a bridge that is designated on a shared segment through two ports', () => {
    const tree = settledTree(
      networkOf({ hub: { dialect: 'off' }, a: {}, b: {} }, ['hub 1 = a 1', 'hub 2 = a 2', 'hub 3 = b 1']),
    );
    expect(roles(tree, 'a 1', 'a 2', 'b 1')).toBe('D B R');
  });
});

describe('per-VLAN trees', () => {
  const perVlan = { dialect: 'per-vlan-rstp' };
  const trunk = (allowed: string) => ({ vlans: { mode: 'trunk', allowed } });
  const vlans = [{ id: 15 }, { id: 25 }];

  it('run over the ports that carry their VLAN only', () => {
    const design = networkOf(
      { a: perVlan, b: perVlan, c: perVlan },
      ['a 1 = b 1', 'b 2 = c 1', 'c 2 = a 2'],
      { 'a 2': trunk('15'), 'c 2': trunk('15'), 'c 1': trunk('25'), 'b 2': trunk('15,25') },
      { vlans },
    );
    const [tree15, tree25] = [settledTree(design, 'vlan:15'), settledTree(design, 'vlan:25')];
    // VLAN 15: b's port 2 carries it and c's port 1 does not, so b is designated toward an end that is not in the tree.
    expect(roles(tree15, 'a 1', 'a 2', 'b 1', 'b 2', 'c 1', 'c 2')).toBe('D D R D . R');
    // VLAN 25 does not run over a-c: c reaches the root through b at 2 x 20 000.
    expect(roles(tree25, 'a 1', 'a 2', 'b 1', 'b 2', 'c 1', 'c 2')).toBe('D . R D R .');
    expect(at(tree25, 'c').rootPathCost).toBe(40_000);
  });

  it('have their own root, cost and priority; the VLAN is added to the priority sent', () => {
    const design = networkOf(
      { a: perVlan, b: { ...perVlan, trees: { 'vlan:25': { priority: 4096 } } } },
      ['a 1 = b 1', 'a 2 = b 2'],
      { 'b 1': { trees: { 'vlan:15': { cost: 30_000 } } }, 'b 2': { trees: { 'vlan:25': { priority: 16 } } } },
      { vlans },
    );
    const [tree15, tree25] = [settledTree(design, 'vlan:15'), settledTree(design, 'vlan:25')];
    expect(at(tree15, 'b')).toMatchObject({ root: 'a', rootPort: '2' }); // 30 000 against 20 000
    expect(at(tree25, 'a')).toMatchObject({ root: 'b', rootPort: '2' }); // b's port 2 says 16.2, its port 1 128.1
    const { network, trees } = solutionOf(design);
    const election = explainRoot(network, treeOf({ network, trees }, vlanTree(25))!, 0);
    expect(election?.ranking.map(({ id }) => bridgeIdText(id))).toEqual([
      '4121.02:00:00:00:00:02',
      '32793.02:00:00:00:00:01',
    ]);
  });

  it('are one with the CST in VLAN 1, and pass a standard bridge like a hub in every other VLAN, where it forwards', () => {
    // std runs RSTP between a and b, which are also joined directly. In VLAN 1 all three take part: a is root, and b's
    // identifier with VLAN 1 added (32769) loses to std's 32768 on the link between them, so b blocks there.
    const design = networkOf(
      { a: { ...perVlan, priority: 0 }, std: { dialect: 'rstp' }, b: perVlan },
      ['a 1 = std 1', 'std 2 = b 1', 'a 2 = b 2'],
      {},
      { vlans },
    );
    expect(roles(settledTree(design, 'vlan:1'), 'std 1', 'std 2', 'b 1', 'b 2')).toBe('R D A R');
    // In VLAN 15 std takes no part; its two ports forward in its own tree, so a 1 and b 1 hear each other straight.
    expect(roles(settledTree(design, 'vlan:15'), 'a 1', 'a 2', 'b 1', 'b 2')).toBe('D D R A');
    expect(at(settledTree(design, 'vlan:15'), 'std')).toBeUndefined();
  });
});

describe('ports without a neighbour', () => {
  it('are disabled when nothing is plugged in or a side is down, designated toward a host', () => {
    const design = designOf({
      switches: [
        {
          id: 'a',
          mac: '02:00:00:00:00:01',
          ports: [
            { id: '1', number: 1 },
            { id: '2', number: 2 },
            { id: '3', number: 3, up: false },
            { id: '4', number: 4 },
          ],
        },
        { id: 'b', mac: '02:00:00:00:00:02', ports: [{ id: '3', number: 3 }] },
      ],
      links: [{ id: 'l', a: { switch: 'a', port: '3' }, b: { switch: 'b', port: '3' } }],
      hosts: [{ id: 'h', mac: '02:00:00:00:01:01', attach: [{ switch: 'a', port: '4' }] }],
    });
    expect(roles(settledTree(design), 'a 1', 'a 2', 'a 3', 'b 3', 'a 4')).toBe('- - - - D');
  });
});

describe('regions', () => {
  const region = (more: object = {}) => ({ dialect: 'mstp', region: 'ridge', ...more });
  const regions = { regions: [{ id: 'ridge', name: 'RIDGE', instances: [{ id: 1, vlans: '15' }] }] };
  // r outside is root; x and y are a region, y only behind x; z outside hangs on both.
  const design = networkOf(
    { r: { priority: 0 }, x: region(), y: region({ trees: { 'mst:1': { priority: 0 } } }), z: {} },
    ['r 1 = x 1', 'x 2 = y 1', 'y 2 = z 1', 'z 2 = x 3'],
    {},
    regions,
  );
  it('add external cost where they are entered, and internal cost inside', () => {
    const cist = settledTree(design, 'mst:0');
    expect(
      ['x', 'y'].map((sw) => {
        const { root, rootPathCost, regionalRoot, externalRootPathCost, internalRootPathCost } =
          cist.switches[sw as never]!;
        return { root, rootPathCost, regionalRoot, externalRootPathCost, internalRootPathCost };
      }),
    ).toEqual([
      { root: 'r', rootPathCost: 20_000, regionalRoot: 'x', externalRootPathCost: 20_000, internalRootPathCost: 0 },
      {
        root: 'r',
        rootPathCost: 20_000,
        regionalRoot: 'x',
        externalRootPathCost: 20_000,
        internalRootPathCost: 20_000,
      },
    ]);
    // To z the region is one bridge, x: both ways cost the same, and the port number decides.
    expect(roles(cist, 'r 1', 'x 1', 'x 2', 'y 1', 'x 3', 'z 2', 'y 2', 'z 1')).toBe('D R D R D A D R');
  });
  it('have a master port where an instance leaves them, and a root of its own inside', () => {
    const instance = settledTree(design, 'mst:1');
    expect(instance.switches).toMatchObject({
      x: { root: 'y', rootPathCost: 20_000, rootPort: '2' },
      y: { root: 'y', rootPort: null },
    });
    expect(Object.keys(instance.switches)).toEqual(['x', 'y']);
    expect(roles(instance, 'x 1', 'x 2', 'x 3', 'y 1', 'y 2')).toBe('M R D D D');
  });
});
