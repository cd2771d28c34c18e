/** Captures in the open pcapng format: a section, an interface for each link or port, a packet for each frame. */
import { fail, ok, type Result } from '../base/result';

/** An Ethernet link type (LINKTYPE_ETHERNET). */
const ETHERNET = 1;
const BLOCK = { section: 0x0a0d0d0a, interface: 1, packet: 6 } as const;
const ORDER = 0x1a2b3c4d;
/** Option codes: the end, an interface's name. */
const OPTION = { end: 0, name: 2 } as const;

export interface CapturedFrame {
  /** Microseconds since the beginning of 1970, or of the run. */
  readonly t: number;
  /** Index of its interface. */
  readonly at: number;
  readonly octets: Uint8Array;
}

export interface Capture {
  /** What each interface is called: a link or a port. */
  readonly interfaces: readonly string[];
  readonly frames: readonly CapturedFrame[];
}

/** The file, little-endian; times have the format's own resolution of a microsecond. */
export function encodePcapng({ interfaces, frames }: Capture): Uint8Array {
  const names = interfaces.map((name) => new TextEncoder().encode(name.slice(0, 200)));
  const size =
    28 +
    names.reduce((sum, name) => sum + 20 + 4 + padded(name.length) + 4, 0) +
    frames.reduce((sum, { octets }) => sum + 32 + padded(octets.length), 0);
  const bytes = new Uint8Array(size);
  const view = new DataView(bytes.buffer);
  let at = 0;
  const u16 = (value: number): void => {
    view.setUint16(at, value, true);
    at += 2;
  };
  const u32 = (value: number): void => {
    view.setUint32(at, value, true);
    at += 4;
  };
  const octets = (values: Uint8Array): void => {
    bytes.set(values, at);
    at += padded(values.length);
  };
  const block = (type: number, length: number, body: () => void): void => {
    u32(type);
    u32(length);
    body();
    u32(length);
  };
  block(BLOCK.section, 28, () => {
    u32(ORDER);
    u16(1);
    u16(0);
    u32(0xffffffff); // the section's length is not told
    u32(0xffffffff);
  });
  for (const name of names) {
    block(BLOCK.interface, 20 + 4 + padded(name.length) + 4, () => {
      u16(ETHERNET);
      u16(0);
      u32(0); // no limit on a frame's length
      u16(OPTION.name);
      u16(name.length);
      octets(name);
      u16(OPTION.end);
      u16(0);
    });
  }
  for (const frame of frames) {
    block(BLOCK.packet, 32 + padded(frame.octets.length), () => {
      u32(frame.at);
      u32(Math.floor(frame.t / 4_294_967_296));
      u32(frame.t % 4_294_967_296);
      u32(frame.octets.length);
      u32(frame.octets.length);
      octets(frame.octets);
    });
  }
  return bytes;
}

const padded = (length: number): number => (length + 3) & ~3;

/** Reads what `encodePcapng` writes, and other little-endian captures of Ethernet; unknown blocks are passed over. */
export function decodePcapng(bytes: Uint8Array): Result<Capture, string> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const interfaces: string[] = [];
  const frames: CapturedFrame[] = [];
  if (bytes.length < 28 || view.getUint32(0, true) !== BLOCK.section || view.getUint32(8, true) !== ORDER)
    return fail('not a little-endian pcapng file');
  for (let at = 0; at < bytes.length;) {
    if (at + 12 > bytes.length) return fail(`a block is cut off at octet ${at}`);
    const type = view.getUint32(at, true);
    const length = view.getUint32(at + 4, true);
    if (length < 12 || length % 4 !== 0 || at + length > bytes.length)
      return fail(`a block of ${length} octets at octet ${at}`);
    if (type === BLOCK.interface) interfaces.push(nameIn(bytes, view, at + 16, at + length - 4));
    if (type === BLOCK.packet) {
      const count = view.getUint32(at + 20, true);
      if (count > length - 32) return fail(`a frame of ${count} octets at octet ${at}`);
      frames.push({
        at: view.getUint32(at + 8, true),
        t: view.getUint32(at + 12, true) * 4_294_967_296 + view.getUint32(at + 16, true),
        octets: bytes.slice(at + 28, at + 28 + count),
      });
    }
    at += length;
  }
  return ok({ interfaces, frames });
}

function nameIn(bytes: Uint8Array, view: DataView, from: number, to: number): string {
  for (let at = from; at + 4 <= to;) {
    const [code, length] = [view.getUint16(at, true), view.getUint16(at + 2, true)];
    if (code === OPTION.end) break;
    if (code === OPTION.name) return new TextDecoder().decode(bytes.slice(at + 4, at + 4 + length));
    at += 4 + padded(length);
  }
  return '';
}
