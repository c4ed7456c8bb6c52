"use client";
import { useState } from "react";
import type { Adapted, AdaptOrder, AdaptResult } from "../../artwork/adapt";
import { countText } from "../../core/metrology/count-text";
import { shownNumber } from "../../core/metrology/quantity-text";
import type { StockView } from "../../server/stock/stock-view";
import { DrawingDrop } from "../artwork/drawing-drop";
import { useDrawingWorker } from "../artwork/use-drawing-worker";
import { FilePick } from "../primitives/file-pick";
import { useSurviving } from "../primitives/use-surviving";
import { TopBar } from "../shell/top-bar";
import { useShell } from "../shell/use-shell";
import { ArtworkDrawing } from "./artwork-drawing";
import { ArtworkOutcome } from "./artwork-outcome";
import { type ArtworkWish, type Drawing, orderFor } from "./artwork-wish";
import { ArtworkWishForm, DrawingQuestions } from "./artwork-wish-form";
import { CutOnPick, cutOnText, cutsOf } from "./cut-on-pick";

const startAdapter = () => new Worker(new URL("../../workers/artwork.worker.ts", import.meta.url), { type: "module" });

/** A drawing adapted to the kerf of a stock: dropped, checked, shown, and taken away. */
export function ArtworkScreen({ view }: { view: StockView }) {
  const { unit } = useShell();
  const [drawing, setDrawing] = useSurviving<Drawing | null>(`artwork ${view.slug}`, null);
  const [wish, setWish] = useSurviving<ArtworkWish>(`artwork wish ${view.slug}`, {
    offset: "",
    chord: "0.01 mm",
    wantsSlots: false,
    slotFrom: `${view.spec.nominalMm} mm`,
    fit: "snug",
  });
  const [chosen, setChosen] = useState(0);
  const cuts = cutsOf(view.results);
  const kept = cuts.find((r) => r.id === chosen) ?? cuts[0];
  const offsetMm = kept?.result.values.find((v) => v.id === "offset")?.quantity.value ?? null;
  const thickness = view.batches[0]?.thickness ?? null;
  const { order, faults } = orderFor(drawing, wish, { offsetMm, thickness, unit });
  const state = useDrawingWorker<AdaptOrder, AdaptResult>(startAdapter, order);
  const { result } = state;
  const take = async (file: File) => setDrawing({ name: file.name, text: await file.text(), unit: null, uncut: [] });
  return (
    <>
      <TopBar
        crumbs={[
          { label: "Stock", href: "/stock" },
          { label: view.spec.name, href: `/stock/${view.slug}` },
          { label: "Artwork" },
        ]}
      />
      <main className="mx-auto grid max-w-[1680px] gap-5 px-6 py-5 max-sm:px-4 lg:grid-cols-[1fr_400px]">
        <section className="card grid content-start gap-3 p-4" aria-label="Drawing">
          <DrawingDrop onFile={take}>
            {result?.ok ? (
              <ArtworkDrawing adapted={result} />
            ) : (
              <p className="place-self-center text-ink2">
                {drawing === null ? "Drop an SVG or DXF here." : "The drawing comes when it can be read."}
              </p>
            )}
          </DrawingDrop>
          {result?.ok && <p className="text-[14px] text-ink2">{shownText(result, state.ms)}</p>}
        </section>
        <div className="grid content-start gap-4">
          <section className="card grid gap-3 p-5" aria-label="What is wanted">
            <h1 className="text-xl font-bold">Artwork for {view.spec.name}</h1>
            {drawing && <p className="text-ink2">{drawing.name}</p>}
            <FilePick
              label={drawing ? "Another drawing:" : "A drawing (SVG or DXF):"}
              accept=".svg,.dxf,image/svg+xml"
              disabled={false}
              onFile={take}
            />
            {drawing && (
              <DrawingQuestions
                drawing={drawing}
                onChange={(change) => setDrawing((d) => d && { ...d, ...change })}
                asksUnit={drawing.unit !== null || (result !== null && !result.ok && result.asksUnit)}
                layers={result?.ok ? result.layers : []}
              />
            )}
            <CutOnPick results={cuts} chosen={kept} onChoose={setChosen} />
            <ArtworkWishForm
              wish={wish}
              faults={faults}
              thickness={thickness}
              unit={unit}
              slug={view.slug}
              onChange={(change) => setWish((w) => ({ ...w, ...change }))}
              offsetWhy={
                kept && offsetMm !== null
                  ? `Empty: ${shownNumber(offsetMm, unit, 3)} ${unit}, as ${cutOnText(kept)} told.`
                  : "As its kerf is measured, or as you know it."
              }
            />
          </section>
          <ArtworkOutcome state={state} name={drawing?.name ?? "drawing"} />
        </div>
      </main>
    </>
  );
}

function shownText({ before, left }: Adapted, ms: number): string {
  const holes = before.filter((c) => c.isHole).length;
  return [
    "dashed as it is drawn, full as it is to be cut",
    `${countText(before.length, "outline")}, ${holes === 0 ? "no holes" : `${holes} of them ${holes === 1 ? "a hole" : "holes"}`}`,
    ...(left.length > 0 ? [`${countText(left.length, "line")} left as drawn`] : []),
    `${Math.max(1, Math.round(ms))} ms`,
  ].join(" · ");
}
