/** What ends the command with status 2: one line with the file, the field and what is wrong there. */
export class CliFault extends Error {
  constructor(
    readonly file: string,
    readonly field: string,
    message: string,
  ) {
    super(message);
  }

  get line(): string {
    return [this.file, this.field, this.message].filter((part) => part !== "").join(": ");
  }
}
