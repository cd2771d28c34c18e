/** Settings of several things at once: one value where they agree, "several" where they differ. */

/** The value that all have; null where they differ or there are none. */
export function common<T>(values: readonly T[]): T | null {
  const [first, ...rest] = values;
  if (first === undefined) return null;
  const text = JSON.stringify(first);
  return rest.every((value) => JSON.stringify(value) === text) ? first : null;
}

export const SEVERAL = 'several';

/** What a text field shows: the common value, or the word for differing ones as its placeholder. */
export function textOf<T>(
  values: readonly T[],
  write: (value: T) => string,
): { readonly value: string; readonly placeholder?: string } {
  const one = common(values);
  return one === null ? { value: '', placeholder: SEVERAL } : { value: write(one) };
}

/** What a choice shows: its options, with one more for differing values, which cannot be chosen. */
export function choiceOf<T extends string>(
  values: readonly T[],
  options: readonly (readonly [T, string])[],
): { readonly value: T | ''; readonly options: readonly (readonly [T | '', string])[] } {
  const one = common(values);
  return one === null ? { value: '', options: [['', SEVERAL], ...options] } : { value: one, options };
}
