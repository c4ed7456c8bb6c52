/** Loaded into a server under test: its clock is wrong by CLOCK_OFF_BY_MS. */
const offBy = Number(process.env.CLOCK_OFF_BY_MS);
const RightDate = Date;
const rightNow = Date.now;
globalThis.Date = class extends RightDate {
  // Of its own, since others who wrap it copy only what is its own.
  static UTC = RightDate.UTC;
  static parse = RightDate.parse;
  constructor(...args) {
    if (args.length === 0) super(rightNow() + offBy);
    else super(...args);
  }
  static now() {
    return rightNow() + offBy;
  }
};
