"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { isMeasured, isShownAtMachine } from "../../../core/coupon/ask";
import type { Ask, Site } from "../../../core/coupon/site";
import { type Gauge, hasJaws, type Jaws } from "../../../core/metrology/gauge";
import { parseSignedReading } from "../../../core/metrology/reading-text";
import type { Zero } from "../../../core/metrology/sitting";
import { UNITS } from "../../../core/metrology/units";
import { openSession } from "../../../server/actions/trial-actions";
import type { TrialView } from "../../../server/trial/trial-view";
import { GaugeForm } from "../../gauges/gauge-form";
import { gaugeFacts } from "../../gauges/gauge-words";
import { Button } from "../../primitives/button";
import { NextStep } from "../../primitives/next-step";
import { Fault } from "../../primitives/notice";
import { OneOf } from "../../primitives/one-of";
import { useAction } from "../../primitives/use-action";

type Props = {
  view: TrialView;
  n: number;
  /** The gauge that was sent for; `null` = the last one. */
  start?: string | null;
  /** Why it is asked again; nothing on the first day. */
  note?: string;
  /** Back to the session there is; nothing on the first day. */
  onBack?: () => void;
};

const NO_JAWS: Zero = { outside: 0, inside: null };

/** Before the first reading of a sitting: what it is read with, and what its closed jaws read. */
export function SessionCard({ view, n, start: wanted, note, onBack }: Props) {
  const router = useRouter();
  const round = view.rounds.find((r) => r.n === n);
  const sites = round?.spec?.sites ?? [];
  const isByEye = !sites.some((s) => isMeasured(s.ask));
  const { gauges } = view;
  const before = round?.sessions.findLast((s) => gauges.some((g) => g.id === s.gauge.id))?.gauge.id;
  const [gaugeId, setGaugeId] = useState(wanted ?? before ?? gauges[0]?.id ?? "");
  const [zeros, setZeros] = useState<Record<Jaws, string>>({ outside: "", inside: "" });
  const [declaring, setDeclaring] = useState(false);
  const { busy, fault, setFault, run } = useAction();
  const gauge = gauges.find((g) => g.id === gaugeId);
  const inside = sites.some((s) => usesInside(s.ask));

  function open() {
    const zero = isByEye ? NO_JAWS : gauge ? readZeros(gauge, zeros) : { field: "gauge", message: "Choose a gauge." };
    if ("message" in zero) return setFault(zero);
    run(
      () => openSession({ trialId: view.id, n, gauge: isByEye ? null : gaugeId, zero }),
      () => router.refresh(),
    );
  }

  // The fields of the session stay, and the new gauge is selected.
  if (declaring)
    return (
      <GaugeForm
        gauge={null}
        onDone={(id) => {
          setDeclaring(false);
          if (id) setGaugeId(id);
        }}
      />
    );
  return (
    <form
      className="card grid gap-4 p-5"
      aria-label="Sitting"
      onSubmit={(e) => {
        e.preventDefault();
        open();
      }}
    >
      <div>
        <h2 className="text-[17px] font-bold">{isByEye ? "No gauge is needed" : "What do you read with?"}</h2>
        {note && !isByEye && <p className="text-[16px] text-ink2">{note}</p>}
        {isByEye && <p className="text-[16px] text-ink2">{withoutGauge(sites)}</p>}
      </div>
      {!isByEye && (
        <div className="grid gap-1.5">
          <OneOf
            label="Gauge"
            value={gaugeId}
            onChange={setGaugeId}
            options={gauges.map((g) => ({
              value: g.id,
              label: g.name,
              why: <span className="text-[16px] tabular-nums">{gaugeFacts(g)}</span>,
            }))}
          />
          <Button weight="quiet" className="justify-self-start" onClick={() => setDeclaring(true)}>
            Add a gauge
          </Button>
        </div>
      )}
      {gauge && hasJaws(gauge.kind) && !isByEye && (
        <div className="flex flex-wrap items-start gap-x-5 gap-y-2">
          <ZeroField jaws="outside" gauge={gauge} zeros={zeros} fault={fault} onChange={setZeros} />
          {inside && <ZeroField jaws="inside" gauge={gauge} zeros={zeros} fault={fault} onChange={setZeros} />}
          <p className="basis-full text-[16px] text-ink2">
            Close the jaws and type what they read: it is taken off every measured length.
          </p>
        </div>
      )}
      {fault.message && fault.field !== "outside" && fault.field !== "inside" && <Fault>{fault.message}</Fault>}
      <div className="flex flex-wrap gap-2">
        <NextStep>
          <Button weight="primary" type="submit" disabled={busy}>
            Begin reading
          </Button>
        </NextStep>
        {onBack && <Button onClick={onBack}>Go on with the sitting there is</Button>}
      </div>
    </form>
  );
}

function ZeroField({
  jaws,
  gauge,
  zeros,
  fault,
  onChange,
}: {
  jaws: Jaws;
  gauge: Gauge;
  zeros: Record<Jaws, string>;
  fault: { field: string; message: string };
  onChange: (zeros: Record<Jaws, string>) => void;
}) {
  return (
    <div>
      <label htmlFor={`zero-${jaws}`} className="block text-[16px] text-ink2">
        {jaws === "outside" ? "Closed jaws read" : "Closed inside jaws read"}, {UNITS[gauge.unit].symbol}
      </label>
      <input
        id={`zero-${jaws}`}
        // biome-ignore lint/a11y/noAutofocus: a session begins with the reading of the closed jaws
        autoFocus={jaws === "outside"}
        className="field num w-36"
        autoComplete="off"
        aria-invalid={fault.field === jaws}
        value={zeros[jaws]}
        onChange={(e) => onChange({ ...zeros, [jaws]: e.target.value })}
      />
      {fault.field === jaws && <Fault>{fault.message}</Fault>}
    </div>
  );
}

function readZeros(gauge: Gauge, zeros: Record<Jaws, string>): Zero | { field: string; message: string } {
  const zero: Zero = { ...NO_JAWS };
  if (!hasJaws(gauge.kind)) return zero;
  for (const jaws of ["outside", "inside"] as const) {
    const text = zeros[jaws].trim();
    if (text === "" && jaws === "inside") continue;
    if (text === "") return { field: jaws, message: "Look at the closed jaws first: type 0 where they read nothing." };
    const read = parseSignedReading(text, "length", gauge.unit);
    if (!read.ok) return { field: jaws, message: read.message };
    zero[jaws] = read.value;
  }
  return zero;
}

function withoutGauge(sites: readonly Site[]): string {
  return sites.some(isShownAtMachine)
    ? "The numbers are read off the readout or the engraved scale, as they stand there, minus signs and all."
    : "Nothing is measured here: good light is all it takes.";
}

function usesInside(ask: Ask): boolean {
  if (ask.kind === "quantity") return ask.jaws === "inside";
  return ask.kind === "pair" && (ask.firstJaws === "inside" || ask.secondJaws === "inside");
}
