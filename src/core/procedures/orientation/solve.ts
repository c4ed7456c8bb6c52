/** Which of the eight it is, and how the three switches have to stand. */

import { newestRead } from "../../measuring/examined";
import { holdOf, worthOf } from "../../measuring/number-correction";
import { measured } from "../../metrology/measured";
import { withinSentence } from "../../metrology/sentence-case";
import { SWITCH_WORDS } from "../../metrology/units";
import { entryShape } from "../../settings/entry-text";
import { learnedSenseKey } from "../../settings/learned-of-machine";
import type { GivenOutcome } from "../../trial/given-outcome";
import type { History, RoundRecord } from "../../trial/history";
import type { Correction, Finding, ResultTable } from "../../trial/outcome";
import { READS, SITES } from "./coupon";
import { AS_DRAWN, isSameLie, type Lie, nameOf, righted, type Switches } from "./eight";
import type { OrientationPlan } from "./plan";
import { ORDER_WORDS } from "./plan";
import { chosenAt, type OrderFound, orderIn, readLie, switchesIn } from "./read";
import { INVERT_X, INVERT_Y, ORIENTATION_SETTINGS, SWAP } from "./setting";

type H = History<OrientationPlan>;
type Round = RoundRecord<OrientationPlan>;

const CONTRADICTION = {
  parallel:
    "The two arrows cannot end along the same line. One of them was read at the wrong side. Look at both arrows again.",
  words:
    "The arrows and the words contradict each other. Look at both arrows again, then turn the words upright and read them again.",
} as const;

export function solveOrientation(history: H): GivenOutcome {
  const round = newestRead(history);
  if (!round) return { status: "open", missing: "Nothing is read yet." };
  const read = readLie(round);
  const table = tableOf(round);
  if (!read.ok)
    return read.why === "missing"
      ? { status: "open", missing: "Look at both arrows and at the words.", table }
      : { status: "unsolvable", reason: CONTRADICTION[read.why], table };
  const order = orderIn(history);
  if (!order)
    return {
      status: "unsolvable",
      table,
      reason:
        "The burns contradict each other. Check that the settings of each burn are recorded as they were, and that the pencil line was toward you.",
    };
  const present = switchesIn(round);
  const next = present && righted(read.lie, present, order.order);
  return {
    status: "solved",
    estimates: [],
    corrections: present && next ? correctionsOf(history, { lie: read.lie, present, next, order }) : [],
    findings: [
      ...lieFindings(read.lie, present),
      ...(present && next ? orderFindings(read.lie, present, order) : []),
      TURNED_BY_HAND,
    ],
    table,
    learned: order.from === "burns" ? { [learnedSenseKey(SWAP)]: order.order === "swap first" ? 1 : -1 } : {},
    predicted: "Enter the three settings and burn again. The X arrow ends to the right, the Y arrow away from you.",
  };
}

type Solved = { lie: Lie; present: Switches; next: Switches; order: OrderFound };

function correctionsOf({ machine }: H, { lie, present, next, order }: Solved): Correction[] {
  const values: Readonly<Record<string, [boolean, boolean]>> = {
    [SWAP]: [present.swap, next.swap],
    [INVERT_X]: [present.invertX, next.invertX],
    [INVERT_Y]: [present.invertY, next.invertY],
  };
  return ORIENTATION_SETTINGS.flatMap((spec): Correction[] => {
    const pair = values[spec.key];
    if (!pair) return [];
    const [old, enter] = [Number(pair[0]), Number(pair[1])];
    const change = measured(enter - old, 0, Infinity);
    const held = holdOf(machine, spec);
    return [
      {
        setting: spec.key,
        label: spec.label,
        ...entryShape(held, spec.unit),
        choice: null,
        newValue: { shape: "scalar", value: enter },
        rows: [
          {
            key: spec.key,
            label: spec.label,
            estimate: "orientation",
            at: null,
            old,
            change,
            changeText: old === enter ? "stays" : `switch ${SWITCH_WORDS[enter === 0 ? 0 : 1]}`,
            enter,
            rounding: 0,
            arithmetic: [nameOf(lie), `in force: ${switchText(present)}`, orderLine(order), `new: ${switchText(next)}`],
            worth: worthOf(change, 1),
            heldBack: null,
          },
        ],
      },
    ];
  });
}

function switchText({ swap, invertX, invertY }: Switches): string {
  const word = (is: boolean) => SWITCH_WORDS[is ? 1 : 0];
  return `swap ${word(swap)}, invert X ${word(invertX)}, invert Y ${word(invertY)}`;
}

function orderLine({ order, from }: OrderFound): string {
  const words = withinSentence(ORDER_WORDS[order]);
  if (from === "said") return `the controller ${words}`;
  return from === "burns"
    ? `the controller ${words}, as two burns show`
    : `taken for a first try: the controller ${words}`;
}

function lieFindings(lie: Lie, present: Switches | null): Finding[] {
  if (!present)
    return [
      {
        id: "not read back",
        tone: "needs you",
        site: null,
        headline: "The settings in force are not known.",
        text: "Read swap X and Y, invert X and invert Y in the controller, and confirm each value.",
      },
    ];
  const isRight = isSameLie(lie, AS_DRAWN);
  return [
    {
      id: "lie",
      tone: isRight ? "good" : "needs you",
      site: null,
      headline: nameOf(lie),
      text: isRight ? "Change nothing." : "Enter the three settings below. Then burn the coupon again.",
    },
  ];
}

function orderFindings(lie: Lie, present: Switches, found: OrderFound): Finding[] {
  if (found.isOther)
    return [
      {
        id: "other order",
        tone: "needs you",
        site: null,
        headline: `The controller ${withinSentence(ORDER_WORDS[found.order])}.`,
        text: "Another order was chosen on Lay out. The settings below follow the burns.",
      },
    ];
  if (found.from !== "not known" || !orderMatters(lie, present)) return [];
  return [
    {
      id: "order not known",
      tone: "note",
      site: null,
      headline: "The order of swap and invert matters here, and it is not known.",
      text: "The settings below are a first try for swap first. If the next burn is still wrong, it shows the order.",
    },
  ];
}

/** Whether the two orders ask for different switches. */
export function orderMatters(lie: Lie, present: Switches): boolean {
  const [a, b] = [righted(lie, present, "swap first"), righted(lie, present, "invert first")];
  return a.swap !== b.swap || a.invertX !== b.invertX || a.invertY !== b.invertY;
}

/** What no look at the coupon can show. */
const TURNED_BY_HAND: Finding = {
  id: "turned by hand",
  tone: "note",
  site: null,
  headline: "A coupon that is turned by hand looks like a wrong setting.",
  text: "Arrows, corner mark and words turn with the coupon. Only the pencil line shows the front edge.",
};

function tableOf(round: Round): ResultTable {
  const label = (site: string) => {
    const ask = round.spec.sites.find((s) => s.id === site)?.ask;
    const chosen = chosenAt(round, site);
    const option = ask?.kind === "choice" ? ask.options.find((o) => o.id === chosen) : undefined;
    return option ? withinSentence(option.label) : "–";
  };
  const words = chosenAt(round, SITES.words);
  const row = (site: string, name: string, drawn: string, result: string) => ({
    label: name,
    sites: [site],
    cells: [drawn],
    result,
    state: chosenAt(round, site) === null ? ("none" as const) : ("read" as const),
  });
  return {
    title: "Arrows and words",
    columns: ["On the coupon", "as drawn"],
    resultLabel: "seen",
    rows: [
      row(SITES.x, "X arrow", "to the right", label(SITES.x)),
      row(SITES.y, "Y arrow", "away from you", label(SITES.y)),
      row(SITES.words, "words", "read as usual", words === null ? "–" : words === READS ? "read as usual" : "mirrored"),
    ],
  };
}
