/** Networks to practise on: small, legal, never twice the same, each level with its own traps. Made by a number, so that one can be made again. */
import { randomFrom } from '../../base/random';
import { fail, ok, type Result } from '../../base/result';
import { designSchema, FORMAT, type Design } from '../../model/document';
import { CST, vlanTree, type TreeId } from '../../model/ids';
import { solve } from '../../tree/solve';
import { CODE, treeOf } from '../../tree/settled';

export const PRACTICE_LEVELS = [1, 2, 3] as const;
export type PracticeLevel = (typeof PRACTICE_LEVELS)[number];

/** What is to be worked out at each level. */
export const PRACTICE_TEXT: Readonly<Record<PracticeLevel, string>> = {
  1: 'Three or four switches, all links alike: who is root, and which port blocks?',
  2: 'Five switches, links of different speed, two parallel links, a priority or two: the ties are settled by bridge ID and port ID.',
  3: 'Seven switches, a tree for each VLAN, costs and port priorities set by hand, a link down: one tree is not like the other.',
};

/** The tree that a practice network is about. */
export const practiceTree = (level: PracticeLevel): TreeId => (level === 3 ? vlanTree(25) : CST);

/** Names of the valley station's places. */
const PLACES = ['weir', 'mill', 'gatehouse', 'orchard', 'quarry', 'ferry', 'belfry'] as const;
/** How many networks are tried until one has what its level is about. */
const TRIES = 60;

/** A practice network; the error is a sentence, for numbers that are none. */
export function practiceDesign(level: PracticeLevel, number: number): Result<Design, string> {
  if (!Number.isInteger(number) || number < 0 || number > 999_999)
    return fail('A practice network has a number from 0 to 999 999.');
  const random = randomFrom(number * 3 + level);
  let design = draw(level, number, random);
  for (let i = 0; i < TRIES && !instructive(design, level); i += 1) design = draw(level, number, random);
  return ok(design);
}

interface Shape {
  readonly switches: readonly [number, number];
  readonly chords: readonly [number, number];
  readonly speeds: readonly number[];
}

const SHAPES: Readonly<Record<PracticeLevel, Shape>> = {
  1: { switches: [3, 4], chords: [0, 1], speeds: [1000] },
  2: { switches: [5, 5], chords: [1, 2], speeds: [100, 1000, 1000, 10_000] },
  3: { switches: [7, 7], chords: [2, 3], speeds: [1000, 1000, 10_000] },
};

interface DrawnPort {
  readonly speed: number;
  readonly settings: Record<string, unknown>;
}

function draw(level: PracticeLevel, number: number, random: () => number): Design {
  const { switches, chords, speeds } = SHAPES[level];
  const between = ([low, high]: readonly [number, number]): number => low + Math.floor(random() * (high - low + 1));
  const pick = <T>(from: readonly T[]): T => from[Math.floor(random() * from.length)]!;
  const count = between(switches);
  const cables: [number, number][] = Array.from({ length: count }, (_, i) => [i, (i + 1) % count]);
  for (let i = between(chords); i > 0; i -= 1) {
    const a = Math.floor(random() * count);
    const b = (a + 2 + Math.floor(random() * Math.max(1, count - 3))) % count;
    if (!cables.some(([x, y]) => (x === a && y === b) || (x === b && y === a))) cables.push([a, b]);
  }
  if (level > 1) cables.push([...pick(cables)]);
  const ports: DrawnPort[][] = Array.from({ length: count }, () => []);
  const plug = (s: number, speed: number) => {
    ports[s]!.push({ speed, settings: portSettings(level, pick, random) });
    return { switch: PLACES[s], port: String(ports[s]!.length) };
  };
  const links = cables.map(([a, b], i) => {
    const speed = pick(speeds);
    return { id: `l${i + 1}`, a: plug(a, speed), b: plug(b, speed) };
  });
  const down = level === 3 ? Math.floor(random() * links.length) : -1;
  // Addresses in an order of their own: the root is rarely the first on the sheet.
  const macs = Array.from({ length: count }, (_, i) => [random(), i] as const)
    .sort((x, y) => x[0] - y[0])
    .map(([, i]) => i);
  const radius = 150 + 40 * count;
  return designSchema.parse({
    format: FORMAT.name,
    version: FORMAT.version,
    name: `Valley station, practice ${level}.${number}`,
    notes: PRACTICE_TEXT[level],
    exercise: { task: PRACTICE_TEXT[level], begins: 0, worksheet: practiceTree(level) },
    vlans:
      level === 3
        ? [
            { id: 15, name: 'Mount control' },
            { id: 25, name: 'Image capture' },
          ]
        : [],
    switches: Array.from({ length: count }, (_, s) => ({
      id: PLACES[s],
      mac: `02:5a:00:00:00:${(16 + macs[s]! * 7).toString(16).padStart(2, '0')}`,
      tier: 'distribution',
      dialect: level === 3 ? 'per-vlan-rstp' : 'rstp',
      ...bridgeSettings(level, s, pick, random),
      position: {
        x: Math.round(radius * Math.sin((2 * Math.PI * s) / count)) + 0,
        y: Math.round(-radius * 0.62 * Math.cos((2 * Math.PI * s) / count)) + 0,
      },
      ports: ports[s]!.map(({ speed, settings }, i) => ({ id: String(i + 1), number: i + 1, speed, ...settings })),
    })),
    links: links.map((link, i) => ({ ...link, up: i !== down })),
  });
}

type Choose = <T>(from: readonly T[]) => T;

function bridgeSettings(level: PracticeLevel, s: number, pick: Choose, random: () => number): Record<string, unknown> {
  if (level === 1) return random() < 0.25 ? { priority: pick([4096, 61_440]) } : {};
  const own = random() < 0.35 ? { priority: pick([8192, 24_576, 36_864, 61_440]) } : {};
  return level === 3 && s % 3 === 0
    ? { ...own, trees: { 'vlan:25': { priority: pick([4096, 28_672, 40_960]) } } }
    : own;
}

function portSettings(level: PracticeLevel, pick: Choose, random: () => number): Record<string, unknown> {
  if (level === 1) return {};
  const priority = random() < 0.2 ? { priority: pick([64, 192]) } : {};
  if (level === 2) return { ...priority, ...(random() < 0.12 ? { cost: pick([5000, 30_000]) } : {}) };
  return { ...priority, ...(random() < 0.25 ? { trees: { 'vlan:25': { cost: pick([1000, 9000, 45_000]) } } } : {}) };
}

/** Whether a network asks what its level is about: something blocks; from level 2 on some switch weighs ways of one cost; at 3 the VLANs' trees differ. */
function instructive(design: Design, level: PracticeLevel): boolean {
  const solution = solve(design);
  const tree = treeOf(solution, practiceTree(level));
  if (!tree || new Set(tree.root).size !== 1) return false;
  const { network } = solution;
  if (!tree.role.includes(CODE.alternate)) return false;
  if (level === 1) return true;
  const tied = tree.designated.some((transmitPort, p) => {
    const s = network.owner[p]!;
    return (
      transmitPort >= 0 &&
      transmitPort !== p &&
      tree.rootPort[s] !== p &&
      network.owner[transmitPort] !== s &&
      tree.rootPathCost[network.owner[transmitPort]!]! + tree.cost[p]! === tree.rootPathCost[s]
    );
  });
  const other = treeOf(solution, vlanTree(15));
  return level === 2 ? tied : other !== undefined && other.role.some((code, p) => code !== tree.role[p]);
}
