import { type Fault, Refusal } from "./refusal";

/** Reads a form to its end, so that all its faults are told at once. */
export class FormFaults {
  private readonly faults: Fault[] = [];

  /** What `read` gives. Where it is refused the fault is kept, and `meanwhile` stands in its place until `refuse`. */
  read<T>(read: () => T, meanwhile: T): T {
    try {
      return read();
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      this.faults.push({ field: error.field, message: error.message }, ...error.more);
      return meanwhile;
    }
  }

  /** To be called before anything is kept. @throws Refusal with all faults, in the order of the form */
  refuse(): void {
    const [first, ...more] = this.faults;
    if (first) throw new Refusal(first.field, first.message, more);
  }
}
