import { looksInto } from "../data/server-database";
import { troubleOf } from "../data/trouble";

/** A message for a field of a form. */
export type Fault = { field: string; message: string };

/** Something that cannot be done, said so that a technician can act on it, at the field it belongs to. */
export class Refusal extends Error {
  /** @param more further faults of the same form */
  constructor(
    readonly field: string,
    message: string,
    readonly more: readonly Fault[] = [],
  ) {
    super(message);
  }
}

export type Result<T> =
  | { ok: true; value: T }
  /** `mayPass`: no fault of what was sent, which may be taken later; why, in words. */
  | { ok: false; field: string; message: string; more?: readonly Fault[]; mayPass?: string };

/** Runs an action; a refusal becomes data, a crash is logged and answered in words. */
export async function answering<T>(act: () => T | Promise<T>): Promise<Result<T>> {
  try {
    return { ok: true, value: await act() };
  } catch (error) {
    if (error instanceof Refusal)
      return {
        ok: false,
        field: error.field,
        message: error.message,
        ...(error.more.length > 0 ? { more: error.more } : {}),
      };
    console.error(error);
    const known = troubleOf(error);
    if (!known)
      return {
        ok: false,
        field: "",
        mayPass: "The server answers with a fault; the terminal in which Ustrina runs says why.",
        message: "That did not work, and nothing was changed. Try again; if it stays, the terminal says why.",
      };
    const trouble = looksInto(known);
    return { ok: false, field: "", mayPass: trouble.reason, message: `Nothing was changed. ${trouble.message}` };
  }
}
