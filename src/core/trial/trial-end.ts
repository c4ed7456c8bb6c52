/** How a trial ends. */
export const TRIAL_ENDS = ["proved", "held", "given up"] as const;
export type TrialEnd = (typeof TRIAL_ENDS)[number];

/** The same in a list of trials. */
export const END_WORDS: Readonly<Record<TrialEnd, string>> = {
  proved: "proved",
  held: "check: still valid",
  "given up": "ended without a proof",
};
