/** Either a value or a message a person can act on. */
export type Result<T> = { ok: true; value: T } | { ok: false; message: string };

export const ok = <T>(value: T): Result<T> => ({ ok: true, value });
export const fail = (message: string): Result<never> => ({ ok: false, message });
