/** Octets of a text file of unknown encoding as text; and texts inside of XML and HTML. */
import { fail, ok, type Result } from '../base/result';

/** Largest file that is read, in octets. */
export const MAX_FILE = 16 * 1024 * 1024;

/** What is said of a larger file. */
export const tooLarge = (octets: number): string =>
  `The file holds ${Math.ceil(octets / 1024 / 1024)} MiB; ${MAX_FILE / 1024 / 1024} MiB is the limit.`;

const BOMS: readonly (readonly [number[], string])[] = [
  [[0xef, 0xbb, 0xbf], 'utf-8'],
  [[0xff, 0xfe], 'utf-16le'],
  [[0xfe, 0xff], 'utf-16be'],
];

/** UTF-8, UTF-16 with a byte order mark, else Western European; the error is a sentence. */
export function decodeText(octets: Uint8Array): Result<string, string> {
  if (octets.length > MAX_FILE) return fail(tooLarge(octets.length));
  const marked = BOMS.find(([bom]) => bom.every((octet, i) => octets[i] === octet));
  if (marked) return ok(new TextDecoder(marked[1]).decode(octets));
  try {
    const text = new TextDecoder('utf-8', { fatal: true }).decode(octets);
    return text.includes('\u0000') ? fail('This is no text file: it holds octets of value 0.') : ok(text);
  } catch {
    return octets.includes(0)
      ? fail('This is no text file: it holds octets of value 0.')
      : ok(new TextDecoder('windows-1252').decode(octets));
  }
}

/** A text as a part of XML or HTML: in elements, and between double quotation marks. */
export const escapeXml = (value: string): string =>
  value.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
