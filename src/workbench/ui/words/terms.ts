/** The field's terms in one sentence each: what a heading, a label or a letter says when it is pointed at, and the glossary lists. */

export interface Term {
  readonly term: string;
  readonly says: string;
  /** The standard's clause; none where it is the product's own word. */
  readonly source?: string;
  /** Other labels under which the screen shows it. */
  readonly also?: readonly string[];
}

const Q = (clause: string): string => `802.1Q-2018 ${clause}`;
const AX = (clause: string): string => `802.1AX-2020 ${clause}`;
const D98 = (clause: string): string => `802.1D-1998 ${clause}`;

export const TERMS: readonly Term[] = [
  {
    term: 'access port',
    says: 'A port of one VLAN, whose frames leave it untagged.',
    also: ['access VLAN'],
    source: Q('6.9'),
  },
  { term: 'active', says: 'A bundle end that offers LACP by itself.', source: AX('6.4') },
  {
    term: 'alternate port',
    says: 'Another, worse way to the root: it blocks, and takes over when the root port is lost.',
    also: ['alternate'],
    source: Q('13.12'),
  },
  {
    term: 'automatic edge',
    says: 'A port that hears no bridge for three seconds becomes an edge port by itself.',
    source: Q('13.33'),
  },
  {
    term: 'backup port',
    says: 'A second port of this switch on a segment that another of its ports serves already: it blocks.',
    also: ['backup'],
    source: Q('13.12'),
  },
  {
    term: 'BPDU',
    says: 'The frame in which bridges tell each other who is root, and at which cost they reach it.',
    also: ['BPDUs a second, all switches'],
    source: Q('14'),
  },
  {
    term: 'BPDU guard',
    says: 'A BPDU that comes in shuts the port: no signal, until somebody opens it, or its recovery time has passed.',
    also: ['BPDU guard on edge ports'],
  },
  { term: 'bridge ID', says: 'Bridge priority and MAC address: the lower one wins the election.', source: Q('13.26') },
  {
    term: 'bridge priority',
    says: '0 to 61 440 in steps of 4096; the switch with the lowest becomes root, and the MAC address decides a tie.',
    source: Q('13.26'),
  },
  {
    term: 'bundle',
    says: 'Several links between two neighbours that act as one: a link aggregation group, LAG.',
    also: ['bundles'],
    source: AX('3'),
  },
  {
    term: 'CIST',
    says: 'The common and internal spanning tree: it joins all regions, and switches without one.',
    also: ['common tree'],
    source: Q('13.5'),
  },
  { term: 'cut off', says: 'No frame of one host reaches the other.' },
  {
    term: 'delay',
    says: 'How long a frame is under way on a cable: 5 µs for each kilometre of fibre.',
    also: ['delay, one way'],
  },
  {
    term: 'designated bridge',
    says: 'The switch that forwards frames between a segment and the root.',
    source: Q('13.9'),
  },
  {
    term: 'designated port',
    says: 'The port that forwards between its segment and the root: the best one on that segment.',
    also: ['designated', 'des. port'],
    source: Q('13.12'),
  },
  {
    term: 'digest',
    says: 'A hash of the VLAN map: two switches with the same one lay the same VLANs onto the same instances.',
    source: Q('13.8'),
  },
  {
    term: 'discarding',
    says: 'The port passes no frames of hosts; BPDUs it still hears. Also called blocking.',
    source: Q('13.38'),
  },
  {
    term: 'edge port',
    says: 'A port with hosts only: it forwards at once, and causes no topology change.',
    source: Q('13.27'),
  },
  {
    term: 'external cost',
    says: 'The path cost of a port that leads out of its region, counted in the CIST.',
    also: ['cost, external'],
    source: Q('13.9'),
  },
  {
    term: 'forward delay',
    says: 'How long a classic port listens, and then learns, before it forwards; 15 s as a rule.',
    source: Q('13.25'),
  },
  {
    term: 'hash',
    says: 'What of a frame decides which member of a bundle it takes: MAC addresses, IP addresses or ports.',
    source: AX('8.2'),
  },
  { term: 'hello time', says: 'How often a designated port sends a BPDU; 2 s as a rule.', source: Q('13.25') },
  { term: 'idle links', says: 'Links that carry frames in none of the trees.', also: ['link is'] },
  {
    term: 'incoming BPDUs',
    says: 'Discarded: the port hears no bridge, and a loop over it is not seen (enableBPDUrx).',
    source: Q('13.27'),
  },
  {
    term: 'instance',
    says: 'A spanning tree that several VLANs of a region share.',
    also: ['instances'],
    source: Q('13.5'),
  },
  { term: 'IST', says: 'Instance 0 of a region: the VLANs that no other instance has.', source: Q('13.5') },
  {
    term: 'key',
    says: 'Links join one bundle only where their keys are the same at each end.',
    also: ['LACP key'],
    source: AX('6.3'),
  },
  {
    term: 'LACP priority',
    says: 'Where not all links may be active, those with lower figures are.',
    source: AX('6.3'),
  },
  { term: 'load', says: 'What a VLAN carries in its busiest hour, Mb/s.', also: ['load, Mb/s', 'most loaded link'] },
  {
    term: 'loop guard',
    says: 'A port that led toward the root and stops hearing BPDUs discards, instead of forwarding as designated.',
  },
  {
    term: 'loop probe',
    says: "A switch's own test frame: where it comes back to one of its ports, something closes a loop there, and the port is stopped.",
    also: ['loop probe on edge ports'],
  },
  {
    term: 'master port',
    says: 'The way out of the region toward the root of the CIST, for the instances.',
    also: ['master'],
    source: Q('13.12'),
  },
  {
    term: 'max age',
    says: 'How old what is known of the root may become. Rapid bridges add a second each, so it also says how many hops are allowed. 20 s as a rule.',
    source: Q('13.25'),
  },
  {
    term: 'maximum active links',
    says: 'How many links of the bundle may carry frames; the others stand by.',
    also: ['maximum active'],
    source: AX('6.7'),
  },
  {
    term: 'media converter',
    says: 'A device on the way that keeps the signal up at one end when the fibre behind it is dead.',
  },
  {
    term: 'message age increment',
    says: 'What a classic bridge adds to the age of what it passes on, in 256ths of a second; up to a second.',
    source: D98('8.10.2'),
  },
  { term: 'minimum links', says: 'With fewer active links than this, the bundle is down.', source: AX('6.7') },
  { term: 'native VLAN', says: 'The VLAN whose frames cross a trunk untagged.', source: Q('6.9') },
  {
    term: 'outgoing BPDUs',
    says: 'Not sent: the other end does not hear this bridge (enableBPDUtx).',
    source: Q('13.27'),
  },
  {
    term: 'passes BPDUs on',
    says: 'The port has no part in any tree: frames always pass, and BPDUs go unread to the switch’s other such ports.',
  },
  {
    term: 'path cost',
    says: 'What a port adds to the cost of the way to the root; by its speed, unless it is set.',
    also: ['cost', 'cost, all trees'],
    source: Q('13.27'),
  },
  {
    term: 'path cost method',
    says: 'Long counts 20 000 for 1 Gb/s, short counts 4; all switches should use the same.',
    also: ['cost method'],
    source: Q('13.27'),
  },
  {
    term: 'port priority',
    says: '0 to 240 in steps of 16, 0 to 224 in steps of 32 for single trees: decides a tie between two ports of the same neighbour.',
    also: ['port ID'],
    source: Q('13.27'),
  },
  {
    term: 'recovery of shut ports',
    says: 'Seconds after which a port that a guard has shut opens by itself; what lasts shuts it again.',
  },
  {
    term: 'region',
    says: 'MSTP switches with the same name, revision and VLAN map; toward others they act as one.',
    also: ['regions'],
    source: Q('13.8'),
  },
  {
    term: 'restricted topology change',
    says: 'Topology changes that are heard at the port are not passed on (restrictedTcn).',
    source: Q('13.27'),
  },
  {
    term: 'revision',
    says: 'In region settings, a number that must agree like the name; of a design, one saved change.',
    also: ['rev.'],
    source: Q('13.8'),
  },
  {
    term: 'role',
    says: 'What a port does in a tree: root, designated, alternate, backup, master or disabled.',
    source: Q('13.12'),
  },
  {
    term: 'root',
    says: 'The switch to which all ways of a tree lead: the one with the lowest bridge ID.',
    source: Q('13.9'),
  },
  {
    term: 'root guard',
    says: 'The port never leads to a root: while it hears something better it discards (restrictedRole).',
    source: Q('13.27'),
  },
  {
    term: 'root path cost',
    says: 'The sum of path costs from a switch to the root.',
    also: ['external root path cost'],
    source: Q('13.9'),
  },
  { term: 'root port', says: 'The port of a switch with the cheapest way to the root.', source: Q('13.12') },
  {
    term: 'spanning tree mode',
    says: 'Which spanning tree a switch runs: classic STP, RSTP, MSTP, one tree a VLAN, or none.',
  },
  { term: 'speaks', says: 'Which BPDUs a port sends and reads, where that is not what its switch does.' },
  {
    term: 'standby root',
    says: 'Who becomes root when the root fails: the second in the election.',
    also: ['standby'],
  },
  {
    term: 'state',
    says: 'Discarding, listening, learning or forwarding: what a port does with frames of hosts.',
    source: Q('13.38'),
  },
  {
    term: 'storm limit',
    says: 'The most broadcasts and unknown frames that a port takes in.',
  },
  {
    term: 'system priority',
    says: 'The switch with the better LACP system priority decides which links of a bundle are active.',
    source: AX('6.3'),
  },
  { term: 'tier', says: 'Core, distribution or access: whether a switch should be root, and where the map puts it.' },
  { term: 'timeout', says: 'How soon a silent LACP partner is given up: after 3 s or 90 s.', source: AX('6.4') },
  {
    term: 'topology change',
    says: 'A port came to forward: switches forget the addresses they have learnt.',
    source: Q('13.39'),
  },
  {
    term: 'trunk',
    says: 'A port that carries several VLANs, tagged.',
    also: ['carries, from', 'carries, to'],
    source: Q('6.9'),
  },
  {
    term: 'version 0',
    says: 'The BPDUs of classic bridges: a port that is forced to them settles as one does, and is of no region.',
    source: Q('13.7.2'),
  },
];

const BY_LABEL = new Map(
  TERMS.flatMap((each) => [each.term, ...(each.also ?? [])].map((label) => [label.toLowerCase(), each] as const)),
);

/** The term that a label shows; undefined where there is nothing to explain. */
export const termOf = (label: string): Term | undefined => BY_LABEL.get(label.toLowerCase());

/** What a label says when it is pointed at. */
export const termText = (label: string): string | undefined => {
  const found = termOf(label);
  return found && `${found.says}${found.source ? ` (${found.source})` : ''}`;
};
