/** Writing and reading octets in network order. */
import { fail, ok, type Result } from '../base/result';

/** Grows as it is written to. */
export class Writer {
  private bytes = new Uint8Array(128);
  private length = 0;

  u8(value: number): this {
    this.room(1);
    this.bytes[this.length++] = value & 255;
    return this;
  }
  u16(value: number): this {
    return this.u8(value >>> 8).u8(value);
  }
  u32(value: number): this {
    return this.u16(Math.floor(value / 65_536)).u16(value % 65_536);
  }
  octets(values: Uint8Array | readonly number[]): this {
    this.room(values.length);
    this.bytes.set(values, this.length);
    this.length += values.length;
    return this;
  }
  /** `02:4b:00:00:00:0a`. */
  mac(address: string): this {
    return this.octets(address.split(':').map((octet) => parseInt(octet, 16)));
  }
  /** Text in a field of so many octets, filled up with zeros; what does not fit is cut. */
  text(value: string, length: number): this {
    const octets = new TextEncoder().encode(value).slice(0, length);
    return this.octets(octets).octets(new Uint8Array(length - octets.length));
  }
  /** Octets in hexadecimal, two digits each. */
  hex(digits: string): this {
    return this.octets(
      Array.from({ length: digits.length / 2 }, (_, i) => parseInt(digits.slice(2 * i, 2 * i + 2), 16)),
    );
  }
  /** Zeros up to a length. */
  padTo(length: number): this {
    while (this.length < length) this.u8(0);
    return this;
  }
  done(): Uint8Array {
    return this.bytes.slice(0, this.length);
  }
  private room(more: number): void {
    if (this.length + more <= this.bytes.length) return;
    const next = new Uint8Array(Math.max(this.bytes.length * 2, this.length + more));
    next.set(this.bytes);
    this.bytes = next;
  }
}

/** Reads what a `Writer` wrote; reading past the end gives zeros and is noticed by `ended`. */
export class OctetReader {
  private at = 0;
  private readonly bytes: Uint8Array;

  constructor(bytes: Uint8Array) {
    this.bytes = bytes;
  }

  get left(): number {
    return this.bytes.length - this.at;
  }
  u8(): number {
    return this.bytes[this.at++] ?? 0;
  }
  u16(): number {
    return this.u8() * 256 + this.u8();
  }
  u32(): number {
    return this.u16() * 65_536 + this.u16();
  }
  mac(): string {
    return Array.from({ length: 6 }, () => this.u8().toString(16).padStart(2, '0')).join(':');
  }
  text(length: number): string {
    const octets = Uint8Array.from({ length }, () => this.u8());
    const end = octets.indexOf(0);
    return new TextDecoder().decode(end < 0 ? octets : octets.slice(0, end));
  }
  hex(length: number): string {
    return Array.from({ length }, () => this.u8().toString(16).padStart(2, '0')).join('');
  }
  rest(): Uint8Array {
    return this.bytes.slice(this.at);
  }
  /** The value, unless more was read than there is. */
  end<T>(value: T, what: string): Result<T, string> {
    return this.at > this.bytes.length ? fail(`${what} ends after ${this.bytes.length} octets`) : ok(value);
  }
}
