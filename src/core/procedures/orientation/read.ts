/** What was seen on a coupon: two arrows, and whether its words read. */
import type { History, RoundRecord } from "../../trial/history";
import { MIRRORED, SITES } from "./coupon";
import {
  isMirrored,
  type Lie,
  lieOf,
  type Order,
  possibleOrders,
  type Seen,
  type Switches,
  WAYS,
  type Way,
} from "./eight";
import type { OrientationPlan } from "./plan";
import { INVERT_X, INVERT_Y, SWAP } from "./setting";

type Round = RoundRecord<OrientationPlan>;

export type ReadLie =
  | { ok: true; lie: Lie }
  /** `missing` before all three are read. */
  | { ok: false; why: "missing" | "parallel" | "words" };

/** The newest answer at a point; `null` before. */
export function chosenAt({ answers }: Pick<Round, "answers">, site: string): string | null {
  const last = answers.findLast((a) => a.site === site)?.content;
  return last?.status === "read" && last.value.kind === "choice" ? last.value.option : null;
}

export function readLie(round: Pick<Round, "answers">): ReadLie {
  const way = (site: string): Way | undefined => WAYS.find((w) => w === chosenAt(round, site));
  const [x, y, words] = [way(SITES.x), way(SITES.y), chosenAt(round, SITES.words)];
  if (!x || !y || words === null) return { ok: false, why: "missing" };
  const lie = lieOf(x, y);
  if (!lie) return { ok: false, why: "parallel" };
  return isMirrored(lie) === (words === MIRRORED) ? { ok: true, lie } : { ok: false, why: "words" };
}

/** The switches in force during a burn; `null` while one of them is not known. */
export function switchesIn({ inForce }: Pick<Round, "inForce">): Switches | null {
  const isOn = (key: string) => {
    const value = inForce[key];
    return value?.shape === "scalar" ? value.value !== 0 : null;
  };
  const [swap, invertX, invertY] = [isOn(SWAP), isOn(INVERT_X), isOn(INVERT_Y)];
  return swap === null || invertX === null || invertY === null ? null : { swap, invertX, invertY };
}

export type OrderFound = {
  order: Order;
  /** Said before the burn, shown by two burns, or neither: taken for a first try. */
  from: "said" | "burns" | "not known";
  /** What was said is not what the burns show. */
  isOther: boolean;
};

/** @returns `null` where the burns fit no order: a switch was not as recorded, or a coupon was turned by hand */
export function orderIn({ rounds }: Pick<History<OrientationPlan>, "rounds">): OrderFound | null {
  const burns = rounds.flatMap((round): Seen[] => {
    const [read, present] = [readLie(round), switchesIn(round)];
    return read.ok && present ? [{ seen: read.lie, present }] : [];
  });
  const possible = possibleOrders(burns);
  const said = rounds.at(-1)?.plan.order ?? "not known";
  const [first] = possible;
  if (!first) return null;
  if (said !== "not known" && possible.includes(said)) return { order: said, from: "said", isOther: false };
  if (possible.length === 1) return { order: first, from: "burns", isOther: said !== "not known" };
  return { order: first, from: "not known", isOther: false };
}
