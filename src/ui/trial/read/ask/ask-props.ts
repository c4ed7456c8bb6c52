import type { Piece } from "../../../../core/coupon/piece";
import type { Site } from "../../../../core/coupon/site";
import type { Sitting } from "../../../../core/metrology/sitting";
import type { LengthUnit } from "../../../../core/metrology/units";
import type { AnswerValue } from "../../../../core/trial/answer";
import type { AnswerInput } from "../../../../core/trial/answer-input";

export type InputFault = { field: string; message: string; at?: number | null };

export type AskHandle = {
  /** Fills in what a practice machine or a gauge read; without words the chosen words stay. */
  fill: (text: string, words?: "positive" | "negative" | null) => void;
  /** Characters that arrived with no field focused, as from a gauge that types, or while the field was not there. */
  type: (characters: string, fromGauge?: boolean, words?: "positive" | "negative") => void;
  choose: (words: "positive" | "negative") => void;
  submit: () => void;
};

export type AskProps = {
  site: Site;
  /** On which it is; `null` where nothing was burned. */
  piece: Piece | null;
  /** In which lengths are typed when no unit is. */
  unit: LengthUnit;
  /** The gauge in hand and what its closed jaws read. */
  sitting: Sitting;
  /** What stands in the field at first. */
  start: { text: string; words: "positive" | "negative" | null } | null;
  /** Every point has its readings: the field waits until it is asked for. */
  isFinished?: boolean;
  busy: boolean;
  fault: InputFault | null;
  /** Asked once about what is put in; the same again takes it. */
  question: string | null;
  /** What was read here before, in order. */
  here: readonly AnswerValue[];
  onTake: (input: AnswerInput, from?: "typed" | "wedge") => void;
  /** The signed value typed so far, internal unit, for the drawing. */
  onTyped: (value: number | null) => void;
  /** What stands in the field, to be kept over a reload. */
  onText?: (text: string, words: "positive" | "negative" | null) => void;
  onUnit: () => void;
  onCannot: () => void;
};
