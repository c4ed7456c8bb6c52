/** Where the person is looking while reading: the point, and what is read there so far. */
import type { Site } from "../coupon/site";
import { shownNumber } from "../metrology/quantity-text";
import { quantitiesAt } from "./answer";
import { lengthUnitOf } from "./decisions";
import type { Focus, History, RoundRecord } from "./history";

export type LookedAt<P> = {
  round: RoundRecord<P>;
  site: Site;
  /** As it is typed, else as it was read last, internal unit; `null` before. */
  value: number | null;
  /** The length as it is shown, without its sign where words give it; `?` before it is read. */
  text: string;
};

/** `null` for a point that the newest burn does not have. */
export function lookedAt<P>(history: History<P>, focus: Focus): LookedAt<P> | null {
  const round = history.rounds.at(-1);
  const site = round?.spec.sites.find((s) => s.id === focus.site);
  if (!round || !site) return null;
  const value = focus.typed ?? quantitiesAt(round.answers, site.id).at(-1) ?? null;
  const shown = (mm: number) => shownNumber(signGiven(site) ? Math.abs(mm) : mm, lengthUnitOf(history), 2);
  return { round, site, value, text: value === null ? "?" : shown(value) };
}

function signGiven({ ask }: Site): boolean {
  return ask.kind === "quantity" && ask.signedBy !== null;
}
