import { type Fault, Refusal } from "./refusal";

/** Reads all fields of a form and collects the faults. */
export class FormFaults {
  private readonly faults: Fault[] = [];

  /** Result of `read`. If it refuses, the fault is collected and `meanwhile` is returned; `refuse` then throws. */
  read<T>(read: () => T, meanwhile: T): T {
    try {
      return read();
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      this.faults.push({ field: error.field, message: error.message }, ...error.more);
      return meanwhile;
    }
  }

  /** Call this before saving. @throws Refusal with all faults, in the order of the form */
  refuse(): void {
    const [first, ...more] = this.faults;
    if (first) throw new Refusal(first.field, first.message, more);
  }
}
