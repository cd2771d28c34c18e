/** Numbers with their units, and back. Speeds are in Mbit/s inside. */
import { fail, ok, type Result } from '../../../core/base/result';
import { costText } from '../../../core/tree/explain/vector';

/** `10 Gb/s`, `100 Mb/s`. */
export const speedText = (speed: number): string => (speed >= 1000 ? `${speed / 1000} Gb/s` : `${speed} Mb/s`);

/** `20 000`. */
export const groupText = costText;

/** Reads `10G`, `2.5 Gb/s`, `100M`, `100 Mbit/s` or plain Mbit/s. */
export function readSpeed(text: string): Result<number, string> {
  const match = /^\s*([\d.]+)\s*(?:(g|m|t)(?:b(?:it)?(?:\/s|ps)?)?)?\s*$/i.exec(text);
  const factor = { g: 1000, t: 1_000_000, m: 1 }[(match?.[2] ?? 'm').toLowerCase()] ?? 1;
  const speed = Number(match?.[1]) * factor;
  return match && speed > 0 && speed <= 10_000_000
    ? ok(speed)
    : fail('A speed such as 1 Gb/s, 10G or 100M (plain numbers are Mb/s).');
}

/** Reads a whole number; spaces between digits are fine. */
export function readWhole(text: string): Result<number, string> {
  const bare = text.replace(/[\s\u202f\u00a0]/g, '');
  return /^\d+$/.test(bare) ? ok(Number(bare)) : fail('A whole number, please.');
}

/** With a capital first letter. */
export const upper = (text: string): string => text.slice(0, 1).toUpperCase() + text.slice(1);
