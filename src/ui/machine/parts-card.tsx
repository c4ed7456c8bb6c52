"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { toast } from "sonner";
import type { PartKind, PartSpec } from "../../core/machine/part-spec";
import { inUnit, plain } from "../../core/metrology/quantity-text";
import { putPartAway, swapPart } from "../../server/actions/workshop-actions";
import type { MachineView, PartView } from "../../server/screens/machine-view";
import { Ago, OnDay } from "../primitives/ago";
import { Button, buttonClass } from "../primitives/button";
import { Concern } from "../primitives/concern";
import { PickField } from "../primitives/fields";
import { Folded } from "../primitives/folded";
import { Link } from "../primitives/link";
import { MomentField, momentOf } from "../primitives/moment-field";
import { Fault } from "../primitives/notice";
import { useAction } from "../primitives/use-action";
import { PartForm } from "./part-form";

const WORDS = {
  optic: { title: "Optic", one: "optic", fact: "not written down", none: "No optic is written down as fitted." },
  rotary: { title: "Rotary", one: "rotary", fact: "none", none: "No rotary is fitted." },
} as const;

/** What is fitted of a kind, swapping it in one dated action, and the parts there are. */
export function PartsCard({ view, kind, now }: { view: MachineView; kind: PartKind; now: number }) {
  const [editing, setEditing] = useState<number | "new" | null>(null);
  const [swapping, setSwapping] = useState(false);
  const fitted = view.fitted[kind];
  const parts = view.parts.filter((p) => p.spec.kind === kind);
  const present = parts.find((p) => p.id === fitted?.partId);
  const history = view.fittings.filter((f) => f.kind === kind);
  return (
    <Concern name={WORDS[kind].title} keptAs={`${kind} ${view.slug}`} fact={present?.spec.label ?? WORDS[kind].fact}>
      {present && fitted ? (
        <p>
          <b className="font-semibold">{present.spec.label}</b>{" "}
          <span className="text-ink2">{factsOf(present.spec)}</span>
          <span className="block text-[14px] text-ink2">
            fitted <Ago at={fitted.from} now={now} />
          </span>
        </p>
      ) : (
        <p className="text-ink2">{WORDS[kind].none}</p>
      )}
      <div className="mt-2 flex flex-wrap gap-2">
        {!swapping && parts.some((p) => !p.archived && p.id !== present?.id) && (
          <Button weight="small" onClick={() => setSwapping(true)}>
            {present ? "Swap it" : `Fit ${kind === "optic" ? "an optic" : "a rotary"}`}
          </Button>
        )}
        {!swapping && present && parts.filter((p) => !p.archived).length === 1 && (
          <Button weight="small" onClick={() => setSwapping(true)}>
            Take it off<span className="sr-only"> {present.spec.label}</span>
          </Button>
        )}
        {kind === "rotary" && (
          <Link href={`/machine/${view.slug}/round-parts`} className={buttonClass("small")}>
            Round parts
          </Link>
        )}
        {kind === "optic" && view.spec.kind === "galvo" && (
          <Link href={`/machine/${view.slug}/bent-drawings`} className={buttonClass("small")}>
            Bent drawings
          </Link>
        )}
        <Button weight="small" onClick={() => setEditing("new")}>
          Add {kind === "optic" ? "an optic" : "a rotary"}
        </Button>
      </div>
      {swapping && <SwapForm view={view} kind={kind} parts={parts} onDone={() => setSwapping(false)} />}
      {editing === "new" && <PartForm kind={kind} part={null} onDone={() => setEditing(null)} />}
      {(parts.length > 0 || history.length > 0) && (
        <Folded title="All there are, and what was fitted when" className="mt-2 border-t border-hair pt-1">
          <ul>
            {parts.map((part) => (
              <li key={part.id} className="border-t border-hair py-1.5 first:border-0">
                <PartLine part={part} onEdit={() => setEditing(part.id)} />
                {editing === part.id && <PartForm kind={kind} part={part} onDone={() => setEditing(null)} />}
              </li>
            ))}
          </ul>
          {history.length > 0 && (
            <ul className="mt-1 border-t border-hair pt-1 text-[14px] text-ink2">
              {history.map((f) => (
                <li key={f.id} className="py-0.5">
                  {f.label}: <OnDay at={f.from} />{" "}
                  {f.to === null ? (
                    "until now"
                  ) : (
                    <>
                      to <OnDay at={f.to} />
                    </>
                  )}
                </li>
              ))}
            </ul>
          )}
        </Folded>
      )}
    </Concern>
  );
}

function PartLine({ part, onEdit }: { part: PartView; onEdit: () => void }) {
  const router = useRouter();
  const { busy, fault, run } = useAction();
  const where = part.archived ? "put away" : part.on ? `fitted to ${part.on}` : "not fitted";
  return (
    <div className="flex flex-wrap items-start justify-between gap-x-3">
      <span>
        {part.spec.label} <span className="text-[14px] text-ink2">{factsOf(part.spec)}</span>
        <span className="block text-[14px] text-ink2">{where}</span>
        {fault.message && <Fault>{fault.message}</Fault>}
      </span>
      <span className="flex gap-1">
        <Button weight="quiet" onClick={onEdit}>
          Change<span className="sr-only"> {part.spec.label}</span>
        </Button>
        {part.on === null && (
          <Button
            weight="quiet"
            disabled={busy}
            onClick={() =>
              run(
                () => putPartAway({ id: part.id, away: !part.archived }),
                () => router.refresh(),
              )
            }
          >
            {part.archived ? "Bring back" : "Put away"}
            <span className="sr-only"> {part.spec.label}</span>
          </Button>
        )}
      </span>
    </div>
  );
}

type SwapProps = { view: MachineView; kind: PartKind; parts: PartView[]; onDone: () => void };

/** What comes in the place of what is fitted, since when. */
function SwapForm({ view, kind, parts, onDone }: SwapProps) {
  const router = useRouter();
  const [partId, setPartId] = useState("");
  const [at, setAt] = useState("");
  const { busy, fault, run } = useAction();
  const fitted = view.fitted[kind];
  const choices = [
    { value: "", label: "choose" },
    ...parts
      .filter((p) => !p.archived && p.id !== fitted?.partId)
      .map((p) => ({ value: String(p.id), label: p.on ? `${p.spec.label} (fitted to ${p.on})` : p.spec.label })),
    ...(fitted ? [{ value: "none", label: `nothing: take ${fitted.label} off` }] : []),
  ];
  return (
    <form
      aria-label={`Swap the ${WORDS[kind].one}`}
      className="mt-3 grid gap-3 rounded-md bg-paper p-3"
      onSubmit={(e) => {
        e.preventDefault();
        run(
          () =>
            swapPart({
              machine: view.slug,
              kind,
              at: momentOf(at),
              partId: partId === "none" ? null : Number(partId),
            }),
          () => {
            toast("Swapped.");
            onDone();
            router.refresh();
          },
        );
      }}
    >
      <div className="grid gap-3 sm:grid-cols-2">
        <PickField label="Now fitted" value={partId} onChange={setPartId} choices={choices} />
        <MomentField label="Since" value={at} onChange={setAt} fault={fault.field === "at" ? fault.message : ""} />
      </div>
      {fault.message && fault.field !== "at" && <Fault>{fault.message}</Fault>}
      <div className="flex gap-2">
        <Button weight="primary" type="submit" disabled={busy || partId === ""}>
          It is swapped
        </Button>
        <Button onClick={onDone}>Back</Button>
      </div>
    </form>
  );
}

function factsOf(spec: PartSpec): string {
  if (spec.kind === "optic")
    return [
      spec.focalLengthMm === null ? "" : `f ${inUnit(spec.focalLengthMm, "mm")}`,
      spec.workingDistanceMm === null ? "" : `works at ${inUnit(spec.workingDistanceMm, "mm")}`,
      spec.fieldMm === null ? "" : `field ${inUnit(spec.fieldMm, "mm")}`,
      spec.wavelengthNm === null ? "" : `${plain(spec.wavelengthNm)} nm`,
      spec.ringDiameterMm === null ? "" : `ring Ø ${inUnit(spec.ringDiameterMm, "mm")}`,
    ]
      .filter(Boolean)
      .join(", ");
  return [
    spec.drive,
    spec.rollerDiameterMm === null ? "" : `Ø ${inUnit(spec.rollerDiameterMm, "mm")}`,
    spec.stepsPerRevolution === null ? "" : `${plain(spec.stepsPerRevolution)} steps per revolution`,
    `in the place of ${spec.replaces.toUpperCase()}`,
  ]
    .filter(Boolean)
    .join(", ");
}
