/** What the widths are of: it decides how they go with the height. */
export const DOSES = {
  lines: "Lines whose energy adds up: a steady beam, or pulses that overlap",
  pulses: "Single pulses: what counts is the peak of each",
  beam: "No marks: widths of the beam itself, four times its second moment",
} as const;
export type Doses = keyof typeof DOSES;
