/** A field measured by a grid of dots: its shape from scans, its scale from lengths between caliper marks. */
import type { Figure } from "../../../drawing/figure";
import { combinedValue } from "../../../estimate/adjustment";
import { predictedReading } from "../../../measuring/examined";
import { withoutLeftOut } from "../../../measuring/length-readings";
import { lengthRow } from "../../../measuring/length-row";
import { readTicks } from "../../../measuring/read-ticks";
import { countText } from "../../../metrology/count-text";
import { measured } from "../../../metrology/measured";
import { fixed, plain } from "../../../metrology/quantity-text";
import { withinSentence } from "../../../metrology/sentence-case";
import { type Answer, quantitiesAt } from "../../../trial/answer";
import { lengthUnitOf } from "../../../trial/decisions";
import { estimate, type GivenOutcome } from "../../../trial/given-outcome";
import type { History, RoundRecord } from "../../../trial/history";
import type { Estimate, Finding, ResultRow, ResultTable, Wish } from "../../../trial/outcome";
import { heat } from "../figures";
import { FARTHEST, rmsOf, uncertaintyAt, worstOf } from "../found";
import { gridOf, type Vector } from "../map";
import type { FieldPlan } from "../plan";
import type { FieldWay } from "../way";
import { gridRound, scansOf } from "./coupon";
import { gridDetail } from "./detail";
import { dotsOf, GRID_LENGTHS, gridLengthOf, gridLengthsOf, gridNominalMm } from "./lengths";
import { DEGREE, DEGREES, type GridRead, gridIn, missingLengths, observeGrid } from "./observe";
import { gridSeen, isSameWay } from "./seen";

type H = History<FieldPlan>;
type Round = RoundRecord<FieldPlan>;

const PLACES = gridOf(13);
const isEdge = ({ x, y }: Vector) => Math.max(Math.abs(x), Math.abs(y)) > 0.99;
const isCentre = ({ x, y }: Vector) => Math.hypot(x, y) <= 0.5;
/** Lengths come out within this share of their nominal before anything is known. */
const EXPECTED_WITHIN = 0.02;
/** A scan with so many more dots per inch than it says is worth a word, as a share. */
const DPI_OFF = 0.005;
/** Uncertainty of a skew that nothing shows is worth a word where it is this share of all. */
const LARGE_PART = 0.5;

export const byGrid: FieldWay = {
  nothingRead: "Measure the lengths and read the dots from the scan first.",
  round: gridRound,
  observe: observeGrid,
  found: (history, round) => gridIn(history, round)?.found ?? null,
  missing: missingOutcome,
  estimates: estimatesOf,
  findings: findingsOf,
  figures: (history, round) => {
    const read = gridIn(history, round);
    return read ? [uncertaintyFigure(read)] : [];
  },
  wishes: (history, round) => {
    const read = gridIn(history, round);
    return read ? [degreeWish(history, read)] : [];
  },
  table: tableOf,
  expected: (history, { plan }, site) => {
    if (!gridLengthsOf(plan).some((id) => id === site)) return predictedReading(observeGrid, history, site);
    const predicted = predictedReading(observeGrid, history, site);
    const nominal = gridNominalMm(gridLengthOf(site), plan);
    return predicted ?? measured(nominal, EXPECTED_WITHIN * nominal, Infinity);
  },
  overlay: readTicks,
  detail: gridDetail,
};

function missingOutcome(history: H, round: Round): GivenOutcome | null {
  const { plan, answers } = round;
  const scans = scansOf(plan);
  const left = scans.filter((site) => !answers.some((a) => a.site === site && a.content.status === "read"));
  const lengths = missingLengths(history, round);
  const cannot = [...left, ...lengths].find((id) => answers.some((a) => a.site === id));
  if (cannot) {
    const label = round.spec.sites.find((s) => s.id === cannot)?.label ?? cannot;
    return {
      status: "unsolvable",
      reason: `A reading is missing: ${withinSentence(label)}. Read this point, or burn the grid again.`,
    };
  }
  if (left.length > 0)
    return {
      status: "open",
      missing:
        left.length === scans.length ? "Scan the grid and add the picture." : "Add the picture of the next scan.",
    };
  if (!gridSeen(plan, answers))
    return {
      status: "unsolvable",
      reason:
        plan.pictures === "parts"
          ? "The scans do not overlap enough, or show fewer than half of the dots. Scan again with a larger overlap."
          : "A scan shows fewer than half of the dots, or none along a side. Scan again, or burn the grid with more power.",
    };
  return lengths.length > 0
    ? {
        status: "open",
        missing: `Measure ${lengths.map((id) => withinSentence(GRID_LENGTHS[gridLengthOf(id)].label)).join(" and ")} with calipers. ${plan.pictures === "photo" ? "Without all six distances a photo shows no field." : "Without a length the scan has no scale."}`,
      }
    : null;
}

function estimatesOf(history: H, round: Round): Estimate[] {
  const read = gridIn(history, round);
  if (!read) return [];
  const { found } = read;
  const helps = helpOf(round);
  const shown = (id: string, label: string, budgeted: ReturnType<typeof worstOf>) =>
    estimate(id, label, budgeted, { helps });
  return [
    { ...shown("worst", FARTHEST, worstOf(found)), headline: true },
    shown("rms", "Root mean square over the field", rmsOf(found, PLACES)),
    shown("edge", "Root mean square along the edge", rmsOf(found, PLACES.filter(isEdge))),
    shown("centre", "Root mean square in the inner half", rmsOf(found, PLACES.filter(isCentre))),
    ...(["scale x", "scale y", "shear"] as const).map((id) => shown(id, LABELS[id], errorOf(read, id))),
  ];
}

const LABELS = {
  "scale x": "Scale X, at the corner",
  "scale y": "Scale Y, at the corner",
  shear: "Shear, at the corner",
} as const;

/** From the edges of the square of dots: how much it is too wide, too deep, and leans, carried on to the corner of the field. */
function errorOf({ found, map }: GridRead, id: keyof typeof LABELS) {
  const [half, r] = [map.half, found.reachMm];
  const side = (at: Vector, along: Vector) => ({ at, along });
  const k = half / (2 * r);
  if (id === "scale x")
    return found.errorOver([side({ x: r, y: 0 }, { x: k, y: 0 }), side({ x: -r, y: 0 }, { x: -k, y: 0 })]);
  if (id === "scale y")
    return found.errorOver([side({ x: 0, y: r }, { x: 0, y: k }), side({ x: 0, y: -r }, { x: 0, y: -k })]);
  return found.errorOver([
    side({ x: 0, y: r }, { x: k, y: 0 }),
    side({ x: 0, y: -r }, { x: -k, y: 0 }),
    side({ x: r, y: 0 }, { x: 0, y: k }),
    side({ x: -r, y: 0 }, { x: 0, y: -k }),
  ]);
}

function helpOf({ plan }: Round): string {
  if (plan.pictures === "photo") return "Scan the stock instead. The lens of the camera bends lines.";
  if (plan.pictures === "one" && plan.lengths === "sides")
    return "Measure both diagonals too, or take a second scan with the stock turned by 90°.";
  if (plan.pictures === "one") return "Take a second scan with the stock turned by 90°.";
  return "Take more readings of each length, or use calipers with a smaller limit of error.";
}

function findingsOf(history: H, round: Round): Finding[] {
  const read = gridIn(history, round);
  if (!read) return [];
  const note = (id: string, headline: string, text: string, tone: Finding["tone"] = "note"): Finding => ({
    id,
    tone,
    site: null,
    headline,
    text,
  });
  const { plan } = round;
  const half = plan.fieldMm / 2;
  const dpi = 1 / (1 + combinedValue(read.fit, { scale: 1 }) / half) - 1;
  const missing = plan.across ** 2 - read.seen.dots.length;
  const skew = worstOf(read.found).parts.find((p) => p.id === "skew")?.standardUncertainty ?? 0;
  const [worst] = [worstOf(read.found).quantity];
  return [
    ...(plan.pictures !== "photo" && Math.abs(dpi) > DPI_OFF
      ? [
          note(
            "dpi",
            `The scan has ${plain(Math.abs(100 * dpi), 2)} % ${dpi > 0 ? "more" : "fewer"} dots per inch than it says.`,
            "The calipers set the scale. Check the dots per inch of the scan and the unit of the readings.",
          ),
        ]
      : []),
    ...(skew > LARGE_PART * worst.standardUncertainty
      ? [
          note(
            "skew",
            "One scan and two lengths cannot show a skew of the field.",
            "Most of the uncertainty is the skew of the scanner. Measure both diagonals, or scan again with the stock turned by 90°.",
            "needs you",
          ),
        ]
      : []),
    ...(read.seen.differences.some(isSameWay)
      ? [
          note(
            "same way",
            "Both scans lie the same way on the glass.",
            "Errors of the scanner remain in the field. Turn the stock by 90°, scan again, and read the second scan again.",
            "needs you",
          ),
        ]
      : []),
    ...(missing > 0
      ? [
          note(
            "missing dots",
            `${countText(missing, "dot")} of ${plan.across ** 2} ${missing === 1 ? "is" : "are"} missing.`,
            "The map is fitted without them.",
          ),
        ]
      : []),
    note(
      "beyond the dots",
      `The outermost dots are drawn ${plain(read.found.reachMm, 1)} mm from the middle.`,
      "Marks farther out are not measured. There the correction is extrapolated.",
    ),
    note("turn", "A turn of the head is not visible in the grid.", "Measure the turn against a fence."),
  ];
}

function uncertaintyFigure({ found }: GridRead): Figure {
  return heat("field uncertainty", "Uncertainty along X or Y (95 %)", found.reachMm, (at) => uncertaintyAt(found, at));
}

const AUTO = "auto";

/** The choice of the degree, automatic unless the user chooses a degree. */
function degreeWish({ decisions }: H, { all, map }: GridRead): Wish {
  return {
    id: "degree",
    title: "Degree of the map",
    why: "Ustrina uses the lowest degree that predicts each dot from the others.",
    fields: [],
    checks: [],
    choices: [
      {
        decision: DEGREE.key,
        label: "Degree",
        chosen: DEGREE.of(decisions) ?? AUTO,
        options: [{ value: AUTO, label: "Automatic" }, ...DEGREES.map((value) => ({ value, label: value }))],
      },
    ],
    lines: [
      `Degree ${map.degree} is used.`,
      ...all.map((f) => `Degree ${f.map.degree} predicts a dot to ${fixed(1000 * f.leftOutRms, 1)} µm.`),
    ],
    fault: null,
    files: [],
  };
}

function tableOf(history: H, round: Round): ResultTable {
  const unit = lengthUnitOf(history);
  const { plan } = round;
  const kept = withoutLeftOut(round.answers, history.decisions);
  return {
    title: "Lengths and dots",
    columns: ["Point", `drawn, ${unit}`],
    resultLabel: `read, ${unit}`,
    rows: [
      ...gridLengthsOf(plan).map((id) =>
        lengthRow(
          {
            site: id,
            label: GRID_LENGTHS[id].label,
            drawnMm: gridNominalMm(id, plan),
            values: quantitiesAt(kept, id),
            repeats: plan.lengthRepeats,
          },
          unit,
        ),
      ),
      ...scansOf(plan).map((site): ResultRow => scanRow(site, plan, kept)),
    ],
  };
}

function scanRow(site: string, plan: FieldPlan, answers: readonly Answer[]): ResultRow {
  const content = answers.findLast((a) => a.site === site)?.content;
  const points = content?.status === "read" && content.value.kind === "points" ? content.value.points : null;
  const seen = points?.filter((p) => p !== null).length ?? 0;
  return {
    label: `Dots, scan ${1 + scansOf(plan).indexOf(site)}`,
    sites: [site],
    cells: [String(dotsOf(plan).length)],
    result: points ? `${seen} dots` : "",
    state: points ? "read" : "none",
  };
}
