"use client";
import { type DragEvent, useState } from "react";
import type { AdaptOrder } from "../../artwork/adapt";
import { SVG_UNITS, type SvgUnit } from "../../artwork/read-drawing";
import { FIT_GAPS_MM, type FitKind } from "../../core/fits/slot";
import { shownNumber } from "../../core/metrology/quantity-text";
import { parseReading } from "../../core/metrology/reading-text";
import { dxfOf } from "../../formats/dxf-writer";
import { LARGEST_FILE } from "../../formats/largest-file";
import { svgOf } from "../../formats/svg-writer";
import type { ResultView, StockView } from "../../server/stock/stock-view";
import { Button } from "../primitives/button";
import { CheckField, PickField, TextField } from "../primitives/fields";
import { FilePick } from "../primitives/file-pick";
import { Link } from "../primitives/link";
import { Fault, Notice } from "../primitives/notice";
import { TopBar } from "../primitives/top-bar";
import { useSurviving } from "../primitives/use-surviving";
import { useShell } from "../shell/use-shell";
import { ArtworkDrawing } from "./artwork-drawing";
import { useAdapter } from "./use-adapter";

type Drawing = { name: string; text: string };
type Texts = { offset: string; chord: string; slotFrom: string };

/** A drawing adapted to the kerf of a stock: dropped, checked, shown, and taken away. */
export function ArtworkScreen({ view }: { view: StockView }) {
  const { unit } = useShell();
  const [drawing, setDrawing] = useSurviving<Drawing | null>(`artwork ${view.slug}`, null);
  const [chosen, setChosen] = useState(view.results[0]?.id ?? 0);
  const kept = view.results.find((r) => r.id === chosen) ?? view.results[0];
  const offset = kept?.result.values.find((v) => v.id === "offset")?.quantity.value ?? 0;
  const [texts, setTexts] = useSurviving<Texts>(`artwork fields ${view.slug}`, {
    ...{ offset: "", chord: "0.01 mm", slotFrom: `${view.spec.nominalMm} mm` },
  });
  const [wantsSlots, setWantsSlots] = useState(false);
  const [fit, setFit] = useState<Exclude<FitKind, "press">>("snug");
  const [svgUnit, setSvgUnit] = useState<SvgUnit | null>(null);
  const thickness = view.batches[0]?.thickness ?? null;
  const typed = {
    offset:
      texts.offset.trim() === "" ? { ok: true as const, value: offset } : parseReading(texts.offset, "length", unit),
    chord: parseReading(texts.chord, "length", "mm"),
    slotFrom: parseReading(texts.slotFrom, "length", "mm"),
  };
  const faults = {
    offset: typed.offset.ok ? "" : typed.offset.message,
    chord: !typed.chord.ok
      ? typed.chord.message
      : typed.chord.value > 0
        ? ""
        : "It must be larger than 0: a curve is drawn by chords.",
    slotFrom: wantsSlots && !typed.slotFrom.ok ? typed.slotFrom.message : "",
    slots: wantsSlots && !thickness ? "Measure the thickness of this batch first: its name says little." : "",
  };
  const isReady = drawing !== null && Object.values(faults).every((f) => f === "");
  const order: AdaptOrder | null =
    isReady && typed.offset.ok && typed.chord.ok
      ? {
          ...{ text: drawing.text, offsetMm: typed.offset.value, chordErrorMm: typed.chord.value, unit: svgUnit },
          slots:
            wantsSlots && thickness && typed.slotFrom.ok
              ? { fromMm: typed.slotFrom.value, toMm: thickness.meanMm + FIT_GAPS_MM[fit] }
              : null,
        }
      : null;
  const { busy, result, ms } = useAdapter(order);
  const change = (key: keyof Texts) => (text: string) => setTexts((t) => ({ ...t, [key]: text }));
  const take = (name: string, text: string) => {
    setSvgUnit(null);
    setDrawing({ name, text });
  };
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
        <section className="card grid min-h-[420px] content-start gap-3 p-4" aria-label="Drawing">
          {result?.ok ? <ArtworkDrawing adapted={result} /> : <DropHere onDrawing={take} isEmpty={drawing === null} />}
          {result?.ok && (
            <p className="text-[14px] text-ink2">
              dashed as it is drawn, full as it is to be cut · {result.before.length}{" "}
              {result.before.length === 1 ? "outline" : "outlines"}, {result.before.filter((c) => c.isHole).length} of
              them holes · {Math.max(1, Math.round(ms))} ms
            </p>
          )}
        </section>
        <div className="grid content-start gap-4">
          <section className="card grid gap-3 p-5" aria-label="What is wanted">
            <h1 className="text-xl font-bold">Artwork for {view.spec.name}</h1>
            {drawing && <p className="text-ink2">{drawing.name}</p>}
            <DrawingPick onDrawing={take} label={drawing ? "Another drawing:" : "A drawing (SVG or DXF):"} />
            {view.results.length > 1 && (
              <PickField
                label="Cut on"
                value={String(kept?.id ?? "")}
                onChange={(id) => setChosen(Number(id))}
                choices={view.results.map((r) => ({ value: String(r.id), label: cutOn(r) }))}
              />
            )}
            <TextField
              label="Offset per side"
              why={
                kept
                  ? `Empty: ${shownNumber(offset, unit, 3)} ${unit}, as ${cutOn(kept)} told.`
                  : "Nothing is kept yet: say it."
              }
              value={texts.offset}
              onChange={change("offset")}
              fault={faults.offset}
            />
            <TextField
              label="Curves stay within"
              why="So far a chord may lie from its curve."
              value={texts.chord}
              onChange={change("chord")}
              fault={faults.chord}
            />
            <CheckField label="Make slots fit this batch" checked={wantsSlots} onChange={setWantsSlots} />
            {wantsSlots && (
              <>
                <TextField
                  label="Slots that are drawn this wide"
                  value={texts.slotFrom}
                  onChange={change("slotFrom")}
                  fault={faults.slotFrom}
                />
                <PickField
                  label="are to fit"
                  value={fit}
                  onChange={(next) => setFit(next as typeof fit)}
                  choices={(["loose", "sliding", "snug"] as const).map((k) => ({
                    value: k,
                    label: thickness
                      ? `${k}: ${shownNumber(thickness.meanMm + FIT_GAPS_MM[k], unit, 2)} ${unit} once cut`
                      : k,
                  }))}
                />
                {faults.slots && (
                  <Fault>
                    {faults.slots} <Link href={`/stock/${view.slug}`}>To its card</Link>
                  </Fault>
                )}
              </>
            )}
            {result && !result.ok && result.asksUnit && (
              <PickField
                label="One unit of this drawing is"
                value={svgUnit ?? ""}
                onChange={(next) => setSvgUnit(next === "" ? null : (next as SvgUnit))}
                choices={[
                  { value: "", label: "it does not say: choose" },
                  ...Object.keys(SVG_UNITS).map((u) => ({ value: u, label: UNIT_WORDS[u as SvgUnit] })),
                ]}
              />
            )}
          </section>
          <Outcome result={result} busy={busy} name={drawing?.name ?? "drawing"} />
        </div>
      </main>
    </>
  );
}

const UNIT_WORDS: Record<SvgUnit, string> = {
  mm: "1 mm",
  inch: "1 inch",
  "96 an inch": "1/96 inch, as browsers take it",
  "72 an inch": "1/72 inch, a point",
};

function cutOn({ machine, batch, result }: ResultView): string {
  const speed = result.conditions.find((c) => c.label === "Speed")?.text;
  return `${machine ?? "another machine"}, batch ${batch}${speed ? `, ${speed}` : ""}`;
}

function Outcome({
  result,
  busy,
  name,
}: {
  result: ReturnType<typeof useAdapter>["result"];
  busy: boolean;
  name: string;
}) {
  const base = name.replace(/\.[^.]*$/, "");
  return (
    <section className="card grid gap-3 p-5" aria-label="Outcome" aria-live="polite" aria-busy={busy}>
      <h2 className="text-[17px] font-bold">
        {busy ? "Working…" : result === null ? "Nothing yet" : result.ok && result.piece ? "Ready" : "Not yet"}
      </h2>
      {!busy && result === null && <p className="text-ink2">Drop a drawing, or choose it above.</p>}
      {result && !result.ok && <Fault>{result.message}</Fault>}
      {result?.ok && (
        <>
          {result.problems.map((p) => (
            <Notice key={`${p.kind} ${p.at.x} ${p.at.y}`} tone="needs you" headline={HEADLINES[p.kind]}>
              {p.text}
            </Notice>
          ))}
          {result.notes.map((note) => (
            <Notice key={note} tone="note" headline="Look at this.">
              {note}
            </Notice>
          ))}
          {result.slots.length > 0 && (
            <p className="text-ink2">
              {result.slots.length} {result.slots.length === 1 ? "end of a slot was" : "ends of slots were"} found, and
              made to fit.
            </p>
          )}
          {result.piece && (
            <p className="flex flex-wrap gap-2">
              <Button
                weight="primary"
                onClick={() => result.piece && give(`${base}-adapted.svg`, svgOf(result.piece, false), "image/svg+xml")}
              >
                Download SVG
              </Button>
              <Button onClick={() => result.piece && give(`${base}-adapted.dxf`, dxfOf(result.piece), "image/vnd.dxf")}>
                Download DXF
              </Button>
            </p>
          )}
          {result.piece && (
            <p className="text-[14px] text-ink2">
              Switch off every other offset for the kerf on the way: this drawing is to be cut as it is.
            </p>
          )}
        </>
      )}
    </section>
  );
}

const HEADLINES = {
  open: "An outline is open.",
  "self-crossing": "An outline crosses itself.",
  overlapping: "Two outlines overlap.",
  "drawn twice": "An outline is drawn twice.",
  vanishes: "Something would vanish.",
  "falls apart": "Something would fall apart.",
  closes: "A slit would close.",
  "grown together": "Two outlines would grow into each other.",
} as const;

function DropHere({ onDrawing, isEmpty }: { onDrawing: (name: string, text: string) => void; isEmpty: boolean }) {
  const [over, setOver] = useState(false);
  const drop = async (e: DragEvent) => {
    e.preventDefault();
    setOver(false);
    const file = e.dataTransfer.files[0];
    if (file && file.size <= LARGEST_FILE) onDrawing(file.name, await file.text());
  };
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: dropping is one more way; the file can be chosen by keyboard beside it
    <div
      className={`grid min-h-[380px] place-items-center rounded-md border border-dashed p-6 text-center ${over ? "border-steel bg-steel-tint" : "border-line"}`}
      onDragOver={(e) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={drop}
    >
      <p className="max-w-prose text-ink2">
        {isEmpty
          ? "Drop an SVG or DXF here."
          : "The drawing comes when it can be read. Another one can be dropped here."}
      </p>
    </div>
  );
}

function DrawingPick({ onDrawing, label }: { onDrawing: (name: string, text: string) => void; label: string }) {
  return (
    <FilePick
      label={label}
      accept=".svg,.dxf,image/svg+xml"
      disabled={false}
      onFile={async (file) => onDrawing(file.name, await file.text())}
    />
  );
}

function give(name: string, text: string, mime: string): void {
  const url = URL.createObjectURL(new Blob([text], { type: mime }));
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}
