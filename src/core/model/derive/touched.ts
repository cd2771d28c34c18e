/** What two states of a design differ in, as places that mean the same in both: `switches/ridge-a/ports/1/cost`. */
import type { Design } from '../document';

type Place = readonly string[];

/**
 * The places at which a design changed. Items of lists go by their id, so that places still fit after others were added
 * or removed; an item that came or went is one place, and so is a list whose items have no ids.
 */
export function touchedPlaces(before: Design, after: Design): Place[] {
  const places: Place[] = [];
  walk(before, after, []);
  return places;

  function walk(a: unknown, b: unknown, at: Place): void {
    if (a === b) return;
    const [one, other] = [partsOf(a), partsOf(b)];
    if (!one || !other) {
      if (JSON.stringify(a) !== JSON.stringify(b)) places.push(at);
      return;
    }
    for (const key of new Set([...one.keys(), ...other.keys()])) walk(one.get(key), other.get(key), [...at, key]);
  }
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
