/** The passes of a sweep as a model: those of one way agree, and the two ways differ by no more than screws play. */
import { adjust } from "../../../estimate/adjustment";
import { type Model, ofReadings, usual } from "../../../estimate/model";
import { withoutLeftOut } from "../../../measuring/length-readings";
import { eyeGroup, notedHeights } from "../../../measuring/noted-heights";
import { quantitiesAt } from "../../../trial/answer";
import type { History, RoundRecord } from "../../../trial/history";
import { FOCUS_ESTIMATE } from "../correction";
import { GO_BY, knownSetting, ranked } from "../found";
import { type SweepPlan, settingUncertainty } from "../plan";
import { FALLING_SITE, RISING_SITE } from "./coupon";
import { ANSWER_ROWS, waysOf } from "./ways";

/** Scatter of noting the brightest point, mm, and how many passes that is worth. (common practice, no source) */
const EYE = { sdMm: 0.3, freedom: 2 };
/** What rising and falling passes differ by before both are noted, sd, mm. (common practice, no source) */
const USUAL_PLAY_MM = 0.4;

const LABELS = { [RISING_SITE]: "the rising passes", [FALLING_SITE]: "the falling passes" };

/** @returns `null` while no pass is noted */
export function observeSweep(history: History<SweepPlan>, round: RoundRecord<SweepPlan>): Model | null {
  const eye = { ...EYE, stepMm: round.plan.settableMm };
  const points = Object.entries(LABELS).map(([site, label]) => ({ site, label, row: { [site]: 1 } }));
  const passes = notedHeights(history, round, points, { eye, sourceLabel: "Noting the brightest point" });
  if (passes.length === 0) return null;
  const play = usual(RISING_SITE, "usual play of the screw", USUAL_PLAY_MM);
  const model: Model = {
    observations: [
      ...passes,
      { ...play, row: { [RISING_SITE]: 1, [FALLING_SITE]: -1 } },
      knownSetting(settingUncertainty(round.plan)),
    ],
    groups: [eyeGroup(eye)],
    wanted: [],
  };
  return { ...model, wanted: wantedOf(history, round, model) };
}

/** The noted heights of each way, without those that were left out. */
export function notedPasses({ decisions }: Pick<History<SweepPlan>, "decisions">, round: RoundRecord<SweepPlan>) {
  const answers = withoutLeftOut(round.answers, decisions);
  return { rising: quantitiesAt(answers, RISING_SITE), falling: quantitiesAt(answers, FALLING_SITE) };
}

function wantedOf(history: History<SweepPlan>, round: RoundRecord<SweepPlan>, model: Model): Model["wanted"] {
  const adjustment = adjust(ofReadings(model));
  if (!adjustment) return [];
  const { ways, chosen } = ranked(waysOf({ ...notedPasses(history, round), adjustment }), GO_BY.of(history.decisions));
  return ways.map(({ id }) => {
    const row = ANSWER_ROWS[id] ?? {};
    if (id === chosen?.id) return { id: FOCUS_ESTIMATE, label: "the focus height", row, proves: 1 };
    return { id, label: "another answer for the focus height", row };
  });
}
