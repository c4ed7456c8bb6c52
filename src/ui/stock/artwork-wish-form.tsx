"use client";
import { SVG_UNITS, type SvgUnit } from "../../artwork/read-drawing";
import { FIT_GAPS_MM } from "../../core/fits/slot";
import { shownNumber } from "../../core/metrology/quantity-text";
import type { LengthUnit } from "../../core/metrology/units";
import type { Thickness } from "../../core/procedures/stock-at-hand";
import { CheckField, PickField, TextField } from "../primitives/fields";
import { Link } from "../primitives/link";
import { Fault } from "../primitives/notice";
import type { ArtworkWish, Drawing, SlotFit, WishFaults } from "./artwork-wish";

type Props = {
  slug: string;
  wish: ArtworkWish;
  onChange: (change: Partial<ArtworkWish>) => void;
  faults: WishFaults;
  /** What the offset is where none is typed. */
  offsetWhy: string;
  thickness: Thickness | null;
  unit: LengthUnit;
};

export function ArtworkWishForm({ slug, wish, onChange, faults, offsetWhy, thickness, unit }: Props) {
  return (
    <>
      <TextField
        label="Offset per side"
        why={offsetWhy}
        value={wish.offset}
        onChange={(offset) => onChange({ offset })}
        fault={faults.offset}
      />
      <TextField
        label="Curves stay within"
        why="So far a chord may lie from its curve."
        value={wish.chord}
        onChange={(chord) => onChange({ chord })}
        fault={faults.chord}
      />
      <CheckField
        label="Make slots fit this batch"
        checked={wish.wantsSlots}
        onChange={(wantsSlots) => onChange({ wantsSlots })}
      />
      {wish.wantsSlots && (
        <>
          <TextField
            label="Slots that are drawn this wide"
            value={wish.slotFrom}
            onChange={(slotFrom) => onChange({ slotFrom })}
            fault={faults.slotFrom}
          />
          <PickField
            label="are to fit"
            value={wish.fit}
            onChange={(fit) => onChange({ fit: fit as SlotFit })}
            choices={(["loose", "sliding", "snug"] as const).map((k) => ({
              value: k,
              label: thickness
                ? `${k}: ${shownNumber(thickness.meanMm + FIT_GAPS_MM[k], unit, 2)} ${unit} once cut`
                : k,
            }))}
          />
          {faults.thickness && (
            <Fault>
              {faults.thickness} <Link href={`/stock/${slug}`}>To its card</Link>
            </Fault>
          )}
        </>
      )}
    </>
  );
}

const UNIT_WORDS: Record<SvgUnit, string> = {
  mm: "1 mm",
  inch: "1 inch",
  "96 an inch": "1/96 inch, as browsers take it",
  "72 an inch": "1/72 inch, a point",
};

/** What the drawing does not say of itself. */
export function DrawingQuestions({
  drawing,
  onChange,
  asksUnit,
  layers,
}: {
  drawing: Drawing;
  onChange: (change: Partial<Drawing>) => void;
  asksUnit: boolean;
  /** All that it has. */
  layers: readonly string[];
}) {
  const { unit, uncut } = drawing;
  return (
    <>
      {asksUnit && (
        <PickField
          label="One unit of this drawing is"
          value={unit ?? ""}
          onChange={(next) => onChange({ unit: next === "" ? null : (next as SvgUnit) })}
          choices={[
            { value: "", label: "it does not say: choose" },
            ...Object.keys(SVG_UNITS).map((u) => ({ value: u, label: UNIT_WORDS[u as SvgUnit] })),
          ]}
        />
      )}
      {layers.length > 1 && (
        <fieldset>
          <legend className="font-semibold">What is cut</legend>
          <p className="text-[14px] text-ink2">The rest stays as it is drawn: engraving, words.</p>
          {layers.map((layer) => (
            <CheckField
              key={layer}
              label={layer}
              checked={!uncut.includes(layer)}
              onChange={(isCut) => onChange({ uncut: isCut ? uncut.filter((l) => l !== layer) : [...uncut, layer] })}
            />
          ))}
        </fieldset>
      )}
    </>
  );
}
