/** The door for users: a refusal is a returned value. (Misuse by a programmer throws.) */
export type Result<T, E> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly error: E }

export const ok = <T>(value: T): Result<T, never> => ({ ok: true, value })
export const refused = <E>(error: E): Result<never, E> => ({ ok: false, error })
