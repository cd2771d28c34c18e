/** Words and signs of a cabling line (docs/cabling-lines.md), each with its place. */
import { fail, ok, type Result } from '../base/result';

/** What is wrong with a line and where: `at` and `length` are in characters from the line's start. */
export interface LineFault {
  readonly at: number;
  readonly length: number;
  readonly message: string;
}

export interface Token {
  /** `word` may be a keyword, an option or a range; `quoted` is always a name. */
  readonly kind: 'word' | 'quoted' | 'sign';
  readonly text: string;
  readonly at: number;
  readonly length: number;
}

const SIGNS = '=*,+';
const WORD = /(?:\[[^\]\n]*\]|[^\s=*,+"[\]])+/y;
const QUOTED = /"((?:[^"\\]|\\.)*)"/y;

/** Splits a line; everything after a `#` that starts a word is a comment. */
export function tokensOf(line: string): Result<Token[], LineFault> {
  const tokens: Token[] = [];
  let at = 0;
  while (at < line.length) {
    const sign = line[at]!;
    if (/\s/.test(sign)) {
      at += 1;
      continue;
    }
    if (sign === '#') break;
    if (SIGNS.includes(sign)) {
      tokens.push({ kind: 'sign', text: sign, at, length: 1 });
      at += 1;
      continue;
    }
    const quoted = sign === '"';
    const pattern = quoted ? QUOTED : WORD;
    pattern.lastIndex = at;
    const match = pattern.exec(line);
    if (!match) {
      const message = quoted
        ? 'this quotation mark has no partner'
        : `"${sign}" has no partner; put a name that holds it into quotation marks`;
      return fail({ at, length: quoted ? line.length - at : 1, message });
    }
    tokens.push({
      kind: quoted ? 'quoted' : 'word',
      text: quoted ? match[1]!.replace(/\\(.)/g, '$1') : match[0],
      at,
      length: match[0].length,
    });
    at += match[0].length;
  }
  return ok(tokens);
}

/** A name as it must be written so that it is read as a name: in quotation marks where it could be read as something else. */
export const writtenName = (name: string, mayStandBare: (word: string) => boolean = () => true): string =>
  /^[^\s=*,+"#[\]\\][^\s=*,+"[\]\\]*$/.test(name) && mayStandBare(name) ? name : `"${name.replace(/[\\"]/g, '\\$&')}"`;
