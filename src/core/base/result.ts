/** Errors are values at the edges: a success carries `value`, a failure carries `error`. */
export type Result<T, E> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly error: E };

/** Wraps a success. */
export const ok = <T>(value: T): { readonly ok: true; readonly value: T } => ({ ok: true, value });

/** Wraps a failure. */
export const fail = <E>(error: E): { readonly ok: false; readonly error: E } => ({ ok: false, error });
