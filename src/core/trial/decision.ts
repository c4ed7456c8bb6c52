/**
 * A decision of a trial: what it may say, and how that is kept. A trial keeps texts by key; only the owner of a decision spells its key, and
 * only this file its texts.
 */

/** As a trial keeps them. */
export type Decisions = Readonly<Record<string, string>>;

/** One of them, as it is kept. */
export type Decided = { key: string; value: string };

/** @typeParam T what it says */
export type Decision<T> = {
  readonly key: string;
  /** What it says there. */
  of(decisions: Decisions): T;
  /** As it is kept once it says this. */
  as(value: T): Decided;
};

const [YES, NO] = ["yes", "no"];

/** Yes or no; no before it is decided. */
export function yesOrNo(key: string): Decision<boolean> {
  return {
    key,
    of: (decisions) => decisions[key] === YES,
    as: (is) => ({ key, value: is ? YES : NO }),
  };
}

/** One of these; `null` before it is decided, and for what none of them is any more. */
export function oneOf<K extends string>(key: string, options: readonly K[]): Decision<K | null> {
  return {
    key,
    of: (decisions) => options.find((option) => option === decisions[key]) ?? null,
    as: (value) => ({ key, value: value ?? "" }),
  };
}

/** What a person types; empty before. */
export function typed(key: string): Decision<string> {
  return { key, of: (decisions) => decisions[key] ?? "", as: (value) => ({ key, value }) };
}
