/** Something that cannot be done, said so that a technician can act on it, at the field it belongs to. */
export class Refusal extends Error {
  constructor(
    readonly field: string,
    message: string,
  ) {
    super(message);
  }
}

export type Result<T> = { ok: true; value: T } | { ok: false; field: string; message: string };

/** Runs an action; a refusal becomes data, a crash is logged and answered in words. */
export async function answering<T>(act: () => T | Promise<T>): Promise<Result<T>> {
  try {
    return { ok: true, value: await act() };
  } catch (error) {
    if (error instanceof Refusal) return { ok: false, field: error.field, message: error.message };
    console.error(error);
    return {
      ok: false,
      field: "",
      message: "That did not work, and nothing was changed. Try again; if it stays, the terminal says why.",
    };
  }
}
