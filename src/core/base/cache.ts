/** The one place where the core remembers: what was made of a value that does not change is made once. */

/** `make`, once for each value, as long as somebody else holds the value. */
export function oncePer<K extends object, V>(make: (of: K) => V): (of: K) => V {
  const known = new WeakMap<K, { readonly made: V }>();
  return (of) => {
    const found = known.get(of) ?? { made: make(of) };
    known.set(of, found);
    return found.made;
  };
}

/** `make`, once for each text among the last `most` or so. */
export function oncePerText<V>(make: (of: string) => V, most: number): (of: string) => V {
  const known = new Map<string, V>();
  return (of) => {
    const found = known.get(of);
    if (found !== undefined) return found;
    if (known.size >= most) known.clear();
    const made = make(of);
    known.set(of, made);
    return made;
  };
}

/** `make`, once for each number: for what is worked out at one time, since nothing is forgotten. */
export function oncePerNumber<V>(make: (of: number) => V): (of: number) => V {
  const known = new Map<number, { readonly made: V }>();
  return (of) => {
    const found = known.get(of) ?? { made: make(of) };
    known.set(of, found);
    return found.made;
  };
}

/** `make`, not again while what is asked about is the same as the last time, as `same` says. */
export function onceWhile<K, V>(same: (before: K, now: K) => boolean, make: (of: K) => V): (of: K) => V {
  let last: { readonly of: K; readonly made: V } | null = null;
  return (of) => {
    if (!last || !same(last.of, of)) last = { of, made: make(of) };
    return last.made;
  };
}
