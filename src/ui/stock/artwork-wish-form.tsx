"use client";
import { FIT_GAPS_MM } from "../../core/fits/slot";
import { shownNumber } from "../../core/metrology/quantity-text";
import type { LengthUnit } from "../../core/metrology/units";
import type { Thickness } from "../../core/stock/stock-at-hand";
import { UnitQuestion } from "../artwork/unit-question";
import { CheckBox } from "../primitives/check-box";
import { PickField, TextField } from "../primitives/fields";
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
      <CheckBox
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
      {asksUnit && <UnitQuestion unit={unit} onChange={(next) => onChange({ unit: next })} />}
      {layers.length > 1 && (
        <fieldset>
          <legend className="font-semibold">What is cut</legend>
          <p className="text-[14px] text-ink2">The rest stays as it is drawn: engraving, words.</p>
          {layers.map((layer) => (
            <CheckBox
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
