"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { toast } from "sonner";
import type { Gauge } from "../../core/metrology/gauge";
import { shownNumber } from "../../core/metrology/quantity-text";
import type { LengthUnit } from "../../core/metrology/units";
import { takeThickness, undoThickness } from "../../server/actions/stock-actions";
import type { BatchView } from "../../server/stock/stock-view";
import { Button } from "../primitives/button";
import { PickField, TextField } from "../primitives/fields";
import { Notice } from "../primitives/notice";
import { useAction } from "../primitives/use-action";
import { useSurviving } from "../primitives/use-surviving";
import { newClientKey } from "../waiting/client-key";
import { thicknessText } from "./thickness-text";

type Props = { slug: string; batch: BatchView; gauges: readonly Gauge[]; unit: LengthUnit };

/** How thick a batch is: squeezed at several places, never taken from its name. */
export function ThicknessCard({ slug, batch, gauges, unit }: Props) {
  const router = useRouter();
  const [text, setText, forget] = useSurviving(`thickness ${batch.id}`, "");
  const [gauge, setGauge] = useState(gauges.find((g) => g.kind === "calipers")?.id ?? gauges[0]?.id ?? "");
  const { busy, fault, setFault, run } = useAction();
  const take = (sure: boolean) =>
    run(
      () =>
        takeThickness({
          stock: slug,
          batchId: batch.id,
          text,
          sure,
          clientKey: newClientKey(),
          gauge: gauge === "" ? null : gauge,
        }),
      () => {
        forget();
        router.refresh();
      },
    );
  const undo = (id: number) =>
    run(
      () => undoThickness({ stock: slug, batchId: batch.id, id }),
      () => {
        toast("Taken back.");
        router.refresh();
      },
    );
  return (
    <section className="card p-5" aria-label={`Thickness of batch ${batch.label}`}>
      <h2 className="text-[17px] font-bold">Thickness, batch {batch.label}</h2>
      {batch.thickness ? (
        <>
          <p className="num mt-1 text-[24px]">{thicknessText(batch.thickness, unit)}</p>
          <ul className="mt-1 flex flex-wrap gap-2" aria-label="Readings">
            {batch.readings.map((r) => (
              <li
                key={r.id}
                className="num flex items-center gap-1 rounded-md border border-hair px-2 py-0.5 text-[14px]"
              >
                {shownNumber(r.valueMm, unit, 2)}
                <button
                  type="button"
                  className="no-print min-h-6 min-w-6 text-ink2 hover:text-ink"
                  aria-label={`Take ${shownNumber(r.valueMm, unit, 2)} back`}
                  disabled={busy}
                  onClick={() => undo(r.id)}
                >
                  ×
                </button>
              </li>
            ))}
          </ul>
        </>
      ) : (
        <p className="mt-1 text-ochre">
          Not measured. Squeeze it at several places: sheets are rarely as thick as they are called.
        </p>
      )}
      <form
        className="no-print mt-3 grid gap-3"
        aria-label="Measure the thickness"
        onSubmit={(e) => {
          e.preventDefault();
          take(false);
        }}
      >
        <div className="grid grid-cols-[1fr_10rem] gap-3 max-sm:grid-cols-1">
          <TextField
            label="Squeezed at several places"
            why="One after the other, for example 2.96 3.01 2.98."
            value={text}
            onChange={(next) => {
              setFault({ field: "", message: "" });
              setText(next);
            }}
            fault={fault.field === "sure" ? "" : fault.message}
          />
          <PickField
            label="Read with"
            value={gauge}
            onChange={setGauge}
            choices={[...gauges.map((g) => ({ value: g.id, label: g.name })), { value: "", label: "not known" }]}
          />
        </div>
        {fault.field === "sure" && (
          <Notice tone="needs you" headline={fault.message}>
            <Button weight="small" onClick={() => take(true)} disabled={busy}>
              Yes, take it
            </Button>
          </Notice>
        )}
        <p>
          <Button type="submit" disabled={busy || text.trim() === ""}>
            Take
          </Button>
        </p>
      </form>
    </section>
  );
}
