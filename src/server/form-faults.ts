import { type Fault, Refusal } from "./refusal";

/** Reads all fields of a form and collects the faults. */
export class FormFaults {
  private readonly faults: Fault[] = [];

  /**
   * Result of `read`. If it refuses, the fault is collected and `meanwhile` is returned; `refuse` then throws.
   *
   * @param part of the form, put before the names of its fields
   */
  read<T>(read: () => T, meanwhile: T, part = ""): T {
    try {
      return read();
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      for (const { field, message } of [error, ...error.more]) this.add({ field: `${part}${field}`, message });
      return meanwhile;
    }
  }

  add(fault: Fault): void {
    this.faults.push(fault);
  }

  /** Call this before saving. @throws Refusal with all faults, in the order of the form */
  refuse(): void {
    const [first, ...more] = this.faults;
    if (first) throw new Refusal(first.field, first.message, more);
  }
}
