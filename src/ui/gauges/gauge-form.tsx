"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { type Gauge, type GaugeKind, gaugeKindSchema, usualGauge } from "../../core/metrology/gauge";
import { inUnit } from "../../core/metrology/quantity-text";
import { LENGTH_UNITS, UNITS } from "../../core/metrology/units";
import { declareGauge } from "../../server/actions/workshop-actions";
import { Button } from "../primitives/button";
import { PickField } from "../primitives/fields";
import { Fault, Faults } from "../primitives/notice";
import { faultAt, faultsElsewhere, useAction } from "../primitives/use-action";
import { useSurviving } from "../primitives/use-surviving";
import { GAUGE_KIND_WORDS } from "./gauge-words";

const KINDS = gaugeKindSchema.options.map((value) => ({ value, label: GAUGE_KIND_WORDS[value] }));
const GAUGE_UNITS = LENGTH_UNITS.map((value) => ({ value, label: UNITS[value].symbol }));

type Texts = { name: string; resolution: string; limit: string; placing: string };

/** Declares a gauge, or changes one from now on. Empty limit and scatter mean: not known. */
export function GaugeForm({ gauge, onDone }: { gauge: Gauge | null; onDone: (id: string | null) => void }) {
  const router = useRouter();
  const [kind, setKind] = useState<GaugeKind>(gauge?.kind ?? "calipers");
  const [unit, setUnit] = useState<Gauge["unit"]>(gauge?.unit ?? "mm");
  const [texts, setTexts, forget] = useSurviving<Texts>(
    `gauge ${gauge?.id ?? ""}`,
    textsOf(gauge ?? usualGauge("calipers", "mm"), unit, gauge?.name ?? ""),
  );
  const { busy, fault, run } = useAction();
  const elsewhere = faultsElsewhere(fault, (name) => name in texts);

  function choose(next: GaugeKind, nextUnit: Gauge["unit"]) {
    setKind(next);
    setUnit(nextUnit);
    if (!gauge) setTexts((t) => textsOf(usualGauge(next, nextUnit), nextUnit, t.name));
  }

  const save = () =>
    run(
      () => declareGauge({ id: gauge?.id ?? null, kind, unit, ...texts }),
      (id) => {
        forget();
        router.refresh();
        onDone(id);
      },
    );
  const field = (key: keyof Texts, label: string, why: string) => (
    <div>
      <label htmlFor={`gauge-${key}`} className="block text-[14px] text-ink2">
        {label}
      </label>
      <input
        id={`gauge-${key}`}
        className={key === "name" ? "field w-full" : "field num w-44"}
        autoComplete="off"
        value={texts[key]}
        aria-invalid={faultAt(fault, key) !== ""}
        onChange={(e) => setTexts((t) => ({ ...t, [key]: e.target.value }))}
      />
      {why && <p className="text-[14px] text-ink2">{why}</p>}
      {faultAt(fault, key) && <Fault>{faultAt(fault, key)}</Fault>}
    </div>
  );

  return (
    <form
      className="card grid gap-3 p-5"
      aria-label={gauge ? `Change ${gauge.name}` : "New gauge"}
      onSubmit={(e) => {
        e.preventDefault();
        save();
      }}
    >
      <h2 className="text-[17px] font-bold">{gauge ? `Change ${gauge.name}` : "Declare a gauge"}</h2>
      {gauge && <p className="text-[14px] text-ink2">From now on: sittings before keep what was declared then.</p>}
      {field("name", "Name", "")}
      <div className="flex flex-wrap gap-4">
        <PickField label="Kind" value={kind} choices={KINDS} onChange={(next) => choose(next, unit)} />
        <PickField label="Reads in" value={unit} choices={GAUGE_UNITS} onChange={(next) => choose(kind, next)} />
      </div>
      {field("resolution", "Resolution", "A digit, or the distance between two lines.")}
      {field("limit", "Limit of error", "From its data sheet or certificate. If unknown, leave empty.")}
      {field("placing", "Repeatability", "Standard deviation, from experience. If unknown, leave empty.")}
      <Faults of={elsewhere} />
      <div className="flex gap-2">
        <Button weight="primary" type="submit" disabled={busy}>
          {gauge ? "Keep the change" : "Declare it"}
        </Button>
        <Button onClick={() => onDone(null)}>Back</Button>
      </div>
    </form>
  );
}

function textsOf(usual: Pick<Gauge, "resolutionMm" | "limitMm" | "placing">, unit: Gauge["unit"], name: string): Texts {
  const text = (mm: number) => inUnit(mm, unit, 5);
  return {
    name,
    resolution: text(usual.resolutionMm),
    limit: text(usual.limitMm),
    placing: usual.placing ? text(usual.placing.sdMm) : "",
  };
}
