"use client";
import { useState } from "react";
import { FIT_GAPS_MM, type FitKind, slotFor } from "../../core/fits/slot";
import type { Gauge } from "../../core/metrology/gauge";
import { expandedUncertainty } from "../../core/metrology/measured";
import { inUnit, shownLength, shownNumber } from "../../core/metrology/quantity-text";
import { parseReading } from "../../core/metrology/reading-text";
import type { LengthUnit } from "../../core/metrology/units";
import type { Thickness } from "../../core/stock/stock-at-hand";
import { thicknessOf } from "../../core/stock/thickness";
import { APART_WITH_DECIMAL_COMMAS, readQuantities } from "../../core/trial/draft";
import type { ResultView } from "../../server/stock/stock-view";
import { Button } from "../primitives/button";
import { CheckBox } from "../primitives/check-box";
import { copyText } from "../primitives/copy-text";
import { PickField, TextField } from "../primitives/fields";
import { useSurviving } from "../primitives/use-surviving";
import { CutOnPick, cutsOf } from "./cut-on-pick";

type Props = {
  slug: string;
  thickness: Thickness | null;
  results: readonly ResultView[];
  gauges: readonly Gauge[];
  unit: LengthUnit;
};

type Texts = { thickness: string; width: string; interference: string };

const FIT_WORDS: Record<FitKind, string> = {
  loose: "loose: falls through",
  sliding: "sliding: moves by hand",
  snug: "snug: stays, and comes out by hand",
  press: "press: held by its interference",
};

/** Beyond this a slot is drawn for parts that may not go in. */
const LIKELY = 0.05;

/** The slot to draw for a part, with its uncertainty and the chance that the part will not go in. */
export function FitCard({ slug, thickness: own, results: all, gauges, unit }: Props) {
  const results = cutsOf(all);
  const [texts, setTexts] = useSurviving<Texts>(`fit ${slug}`, { thickness: "", width: "", interference: "0.05" });
  const [fit, setFit] = useState<FitKind>("snug");
  const [compensated, setCompensated] = useState(false);
  const [chosen, setChosen] = useState(0);
  const kept = results.find((r) => r.id === chosen) ?? results[0];
  const value = (id: string) => kept?.result.values.find((v) => v.id === id)?.quantity ?? null;
  const kerf = value("kerf");
  const change = (key: keyof Texts) => (text: string) => setTexts((t) => ({ ...t, [key]: text }));
  if (!kept || !kerf)
    return (
      <section className="card p-5" aria-label="Fits">
        <h2 className="text-[17px] font-bold">Fits</h2>
        <p className="mt-1 text-ink2">
          Once a kerf is kept here, slots for a part of a measured thickness come out of it.
        </p>
      </section>
    );
  const read = readThickness(texts.thickness, own, gauges, unit);
  const width = texts.width.trim() === "" ? null : parseReading(texts.width, "length", unit);
  const interference = parseReading(texts.interference, "length", unit);
  const faults = {
    thickness: read.fault,
    width: width && !width.ok ? width.message : "",
    interference: fit === "press" && !interference.ok ? interference.message : "",
  };
  const found =
    read.thickness && !faults.width && !faults.interference
      ? slotFor(
          {
            fit,
            compensated,
            kerf,
            snugSlotOffset: value("snug slot"),
            thickness: read.thickness,
            interferenceMm: interference.ok ? interference.value : 0,
            widthMm: width?.ok ? width.value : null,
          },
          unit,
        )
      : null;
  return (
    <section className="card p-5" aria-label="Fits">
      <h2 className="text-[17px] font-bold">A slot for a part</h2>
      <div className="no-print mt-2 grid gap-3">
        <CutOnPick results={results} chosen={kept} onChoose={setChosen} />
        <PickField
          label="Fit"
          value={fit}
          onChange={(next) => setFit(next as FitKind)}
          choices={(Object.keys(FIT_GAPS_MM) as FitKind[]).map((k) => ({ value: k, label: FIT_WORDS[k] }))}
        />
        <TextField
          label="Part, squeezed at several places"
          why={
            own ? `Empty: as the card has it, ${shownLength(own.meanMm, unit, 2)}.` : "Never its name: 2.96 3.01 2.98."
          }
          value={texts.thickness}
          onChange={change("thickness")}
          fault={faults.thickness}
        />
        <TextField
          label="How wide the part is"
          why="Empty: the width of the slot alone."
          value={texts.width}
          onChange={change("width")}
          fault={faults.width}
        />
        {fit === "press" && (
          <TextField
            label="Interference"
            value={texts.interference}
            onChange={change("interference")}
            fault={faults.interference}
          />
        )}
      </div>
      <CheckBox
        className="no-print mt-2"
        label="Another program on the way makes up for the kerf as well"
        checked={compensated}
        onChange={setCompensated}
      />
      {found && (
        <div className="mt-3 border-t border-hair pt-3" aria-live="polite">
          <p className="flex flex-wrap items-center gap-3">
            <span>Draw the slot</span>
            <span className="num text-[28px] font-semibold">{shownNumber(found.drawn.value, unit, 3)}</span>
            <span className="num text-ink2">± {shownLength(expandedUncertainty(found.drawn), unit, 3)}</span>
            <Button
              weight="small"
              onClick={() => copyText(shownNumber(found.drawn.value, unit, 3), "Width of the slot")}
            >
              Copy
            </Button>
          </p>
          {found.drawnLengthMm !== null && <p className="num">{shownLength(found.drawnLengthMm, unit, 3)} long</p>}
          <p className={found.chanceNot > LIKELY ? "font-semibold text-ember" : "text-ink2"}>
            {chanceText(found.chanceNot)}
          </p>
          <ul className="num mt-1 text-[14px] text-ink2">
            {found.arithmetic.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </div>
      )}
    </section>
  );
}

function chanceText(chance: number): string {
  if (chance < 0.001) return "Less than 0.1 % of parts will not fit.";
  if (chance < LIKELY) return `${inUnit(chance, "percent", 1)} of parts will not fit.`;
  return `${inUnit(chance, "percent", 0)} of parts will not fit. Choose a looser fit, or measure the part more often.`;
}

function readThickness(
  text: string,
  own: Thickness | null,
  gauges: readonly Gauge[],
  unit: LengthUnit,
): { thickness: Thickness | null; fault: string } {
  if (text.trim() === "")
    return { thickness: own, fault: own ? "" : "Measure the part at several points and enter the thicknesses." };
  const read = readQuantities(text, "length", unit, APART_WITH_DECIMAL_COMMAS);
  if (!read.ok) return { thickness: null, fault: read.message };
  if (read.value.some((v) => !(v > 0))) return { thickness: null, fault: "Enter a thickness above 0 mm." };
  return { thickness: thicknessOf(read.value, gauges.find((g) => g.kind === "calipers") ?? null), fault: "" };
}
