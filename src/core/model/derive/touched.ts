/** What two states of a design differ in, as places that mean the same in both: `switches/ridge-a/ports/1/cost`. */
import equal from 'fast-deep-equal';

export type Place = readonly string[];

/**
 * The places at which a design changed. Items of lists go by their id, so that places still fit after others were added
 * or removed; an item that came or went is one place, and so is a list whose items have no ids.
 */
export function touchedPlaces(before: unknown, after: unknown): Place[] {
  const places: Place[] = [];
  walk(before, after, []);
  return places;

  function walk(a: unknown, b: unknown, at: Place): void {
    if (a === b) return;
    const [one, other] = [partsOf(a), partsOf(b)];
    if (!one || !other) {
      if (!equal(a, b)) places.push(at);
      return;
    }
    for (const key of new Set([...one.keys(), ...other.keys()])) walk(one.get(key), other.get(key), [...at, key]);
  }
}

/** One state with what stands at some places as in another one; parts that are alike remain the same values. Items of lists that the other has not come last. */
export function withPlaces<T>(before: T, after: T, taken: (place: Place) => boolean): T {
  return walk(before, after, []) as T;

  function walk(a: unknown, b: unknown, at: Place): unknown {
    if (a === b) return a;
    const [one, other] = [partsOf(a), partsOf(b)];
    if (!one || !other) return !equal(a, b) && taken(at) ? b : a;
    const parts = [...new Set([...other.keys(), ...one.keys()])].flatMap((key) => {
      const value = walk(one.get(key), other.get(key), [...at, key]);
      return value === undefined ? [] : [[key, value] as const];
    });
    const before = [...one];
    const isAsBefore =
      parts.length === before.length &&
      before.every(([key, value], i) => parts[i]![0] === key && parts[i]![1] === value);
    if (isAsBefore) return a;
    return Array.isArray(b) ? parts.map(([, value]) => value) : Object.fromEntries(parts);
  }
}

/** What stands at a place; undefined where nothing does. */
export const valueAt = (value: unknown, place: Place): unknown =>
  place.reduce<unknown>((at, key) => partsOf(at)?.get(key), value);

/** Where a place leads to nothing. */
export const NOWHERE = Symbol('nowhere');

/** A value with another one at a place, undefined to take away what is there; or `NOWHERE`. */
export function putAt(value: unknown, [key, ...rest]: Place, put: unknown): unknown {
  if (key === undefined) return put;
  const parts = partsOf(value);
  if (!parts || (rest.length > 0 && !parts.has(key))) return NOWHERE;
  const inside = putAt(parts.get(key), rest, put);
  if (inside === NOWHERE) return NOWHERE;
  if (inside === undefined) parts.delete(key);
  else parts.set(key, inside);
  return Array.isArray(value) ? [...parts.values()] : Object.fromEntries(parts);
}

/** The parts of an object by key, or of a list by id; null where a value is to be compared as a whole. */
function partsOf(value: unknown): Map<string, unknown> | null {
  if (typeof value !== 'object' || value === null) return null;
  if (!Array.isArray(value)) return new Map(Object.entries(value));
  const idOf = (item: unknown): unknown =>
    typeof item === 'object' && item !== null && 'id' in item ? item.id : undefined;
  return value.every((item) => idOf(item) !== undefined)
    ? new Map(value.map((item) => [String(idOf(item)), item]))
    : null;
}

/** Whether two changes touch the same thing: one place of the one lies at, above or below one of the other. */
export function collide(mine: readonly Place[], theirs: readonly Place[]): boolean {
  const keyOf = (place: Place): string => place.join('\n');
  const [exact, above] = [new Set(theirs.map(keyOf)), new Set<string>()];
  for (const place of theirs) for (let n = 1; n < place.length; n += 1) above.add(keyOf(place.slice(0, n)));
  return mine.some((place) => above.has(keyOf(place)) || place.some((_, n) => exact.has(keyOf(place.slice(0, n + 1)))));
}

/** The later of two states, with all that is alike in both as the values of the earlier one: what was made of them stays. */
export const sharingParts = <T>(before: T, after: T): T => withPlaces(before, after, () => true);
