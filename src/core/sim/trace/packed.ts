/** BPDUs, vectors and causes as numbers, so that what a worker has run travels to another without being copied object by object. */
import type { Bpdu, RoleCode } from '../../modes/bpdu';
import { timesOf, vectorOf, type Vector } from '../../modes/vector';
import { Recording, type Cause } from './recording';
import type { TimelineData } from './timeline';

const KINDS = ['tcn', 'config', 'rst'] as const;
const ROLES: readonly RoleCode[] = ['root', 'designated', 'alternate', 'master'];
/** Numbers of a vector, and of a BPDU: its kind, its flags, its times, its vector. */
const VECTOR = 6;
const BPDU = 2 + 5 + VECTOR;
/** In the place of a vector's root. */
const NOTHING = -1;

/** As numbers, one after the other. */
export function packVectors(vectors: readonly (Vector | null)[]): Float64Array {
  const into = new Float64Array(vectors.length * VECTOR);
  vectors.forEach((vector, i) => (vector ? writeVector(into, i * VECTOR, vector) : (into[i * VECTOR] = NOTHING)));
  return into;
}

export const vectorIn = (packed: Float64Array, i: number): Vector | null =>
  packed[i * VECTOR] === NOTHING ? null : readVector(packed, i * VECTOR);

/** As numbers, one after the other. Throws on an MST BPDU: who sends it has one clock with everybody (`partsOf`). */
export function packBpdus(bpdus: readonly (Bpdu | null)[]): Float64Array {
  const into = new Float64Array(bpdus.length * BPDU);
  bpdus.forEach((bpdu, i) => bpdu && writeBpdu(into, i * BPDU, bpdu));
  return into;
}

function writeVector(into: Float64Array, at: number, vector: Vector): void {
  into[at] = vector.root;
  into[at + 1] = vector.externalCost;
  into[at + 2] = vector.regionalRoot;
  into[at + 3] = vector.internalCost;
  into[at + 4] = vector.bridge;
  into[at + 5] = vector.port;
}

const readVector = (from: Float64Array, at: number): Vector =>
  vectorOf(from[at]!, from[at + 1]!, from[at + 2]!, from[at + 3]!, from[at + 4]!, from[at + 5]!);

function writeBpdu(into: Float64Array, at: number, bpdu: Bpdu): void {
  if (bpdu.kind === 'mst') throw new Error('an MST BPDU is of no single tree');
  into[at] = KINDS.indexOf(bpdu.kind);
  if (bpdu.kind === 'tcn') return;
  into[at + 1] =
    bpdu.kind === 'config'
      ? bits(bpdu.tc, bpdu.tcAck)
      : bits(bpdu.tc, bpdu.proposal, bpdu.learning, bpdu.forwarding, bpdu.agreement) * 4 + ROLES.indexOf(bpdu.role);
  const { times } = bpdu;
  into[at + 2] = times.messageAge;
  into[at + 3] = times.maxAge;
  into[at + 4] = times.forwardDelay;
  into[at + 5] = times.hello;
  into[at + 6] = times.remainingHops;
  writeVector(into, at + 7, bpdu.vector);
}

const bits = (a: boolean, b: boolean, c = false, d = false, e = false): number =>
  (a ? 1 : 0) | (b ? 2 : 0) | (c ? 4 : 0) | (d ? 8 : 0) | (e ? 16 : 0);

export function bpduIn(from: Float64Array, i: number): Bpdu {
  const at = i * BPDU;
  const kind = KINDS[from[at]!]!;
  if (kind === 'tcn') return { kind };
  const flags = from[at + 1]!;
  const times = timesOf(from[at + 2]!, from[at + 3]!, from[at + 4]!, from[at + 5]!, from[at + 6]!);
  const vector = readVector(from, at + 7);
  if (kind === 'config') return { kind, vector, times, tc: (flags & 1) !== 0, tcAck: (flags & 2) !== 0 };
  return {
    kind,
    vector,
    times,
    role: ROLES[flags & 3]!,
    tc: (flags & 4) !== 0,
    proposal: (flags & 8) !== 0,
    learning: (flags & 16) !== 0,
    forwarding: (flags & 32) !== 0,
    agreement: (flags & 64) !== 0,
  };
}

const CAUSES = ['bpdu', 'guard', 'probe', 'timer', 'signal', 'setting'] as const satisfies readonly Cause['kind'][];

/** A recording: its timeline, and by change what brought it about. */
export interface PackedRecording {
  readonly timeline: TimelineData;
  readonly trees: number;
  readonly kinds: Uint8Array;
  readonly ports: Uint32Array;
  readonly bpdus: Float64Array;
}

export function packRecording(recording: Recording): PackedRecording {
  const { count, trees } = recording;
  const causes = Array.from({ length: count }, (_, i) => recording.causeOf(i));
  return {
    timeline: recording.data(),
    trees,
    kinds: Uint8Array.from(causes, ({ kind }) => CAUSES.indexOf(kind)),
    ports: Uint32Array.from(causes, (cause) => ('port' in cause ? cause.port : 0)),
    bpdus: packBpdus(causes.map((cause) => ('bpdu' in cause ? cause.bpdu : null))),
  };
}

export function unpackRecording({ timeline, trees, kinds, ports, bpdus }: PackedRecording): Recording {
  const causes = Array.from(kinds, (code, i): Cause => {
    const kind = CAUSES[code]!;
    const port = ports[i]!;
    if (kind === 'bpdu' || kind === 'guard') return { kind, port, bpdu: bpduIn(bpdus, i) };
    return kind === 'probe' ? { kind, port } : { kind };
  });
  return Recording.from(timeline, trees, causes);
}
