"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { toast } from "sonner";
import { inUnit, plain } from "../../core/metrology/quantity-text";
import { type Axes, type MachineKind, type MachineSpec, UNKNOWN_AXES } from "../../core/procedures/machine-spec";
import type { KeptSetting } from "../../server/machine-view";
import { keepMachine } from "../../server/workshop-actions";
import { Button } from "../primitives/button";
import { CheckField, type Choice, PickField, TextField } from "../primitives/fields";
import { Fault } from "../primitives/notice";
import { useAction } from "../primitives/use-action";
import { useSurviving } from "../primitives/use-surviving";
import { AxesFields } from "./axes-fields";
import { HeldFields, type HeldTexts, heldOf, NOT_KNOWN } from "./held-fields";

type Texts = Record<"name" | "width" | "depth" | "topSpeed" | "acceleration" | "wavelength" | "workingSpeeds", string>;
const KINDS: Choice[] = [
  { value: "CO2 gantry", label: "CO₂ gantry" },
  { value: "diode gantry", label: "diode gantry" },
  { value: "galvo", label: "galvo" },
];
const USUAL_WAVELENGTH: Record<MachineKind, string> = { "CO2 gantry": "10600", "diode gantry": "455", galvo: "1064" };

type Props = {
  /** `null` = a new machine. */
  machine: { slug: string; spec: MachineSpec } | null;
  /** What procedures correct, by kind of machine. */
  settings: Record<MachineKind, KeptSetting[]>;
  practiceKinds: readonly MachineKind[];
};

/** What is known of a machine; not known is an answer. */
export function MachineForm({ machine, settings, practiceKinds }: Props) {
  const router = useRouter();
  const [kind, setKind] = useState<MachineKind>(machine?.spec.kind ?? "CO2 gantry");
  const [texts, setTexts, forget] = useSurviving<Texts>(
    `machine ${machine?.slug ?? ""}`,
    textsOf(machine?.spec ?? null),
  );
  const [axes, setAxes] = useState<Axes>(machine?.spec.axes ?? UNKNOWN_AXES);
  const [scansBlocks, setScansBlocks] = useState(machine?.spec.scansBlocks ?? true);
  const [held, setHeld] = useState<HeldTexts>(() => heldOf(machine?.spec ?? null, Object.values(settings).flat()));
  const [practice, setPractice] = useState(machine === null);
  const { busy, fault, run } = useAction();
  const set = (key: keyof Texts) => (value: string) => setTexts((t) => ({ ...t, [key]: value }));
  const at = (field: string) => (fault.field === field ? fault.message : "");
  const hasPractice = practiceKinds.includes(kind);
  const asItIs = JSON.stringify([
    textsOf(machine?.spec ?? null),
    machine?.spec.axes,
    machine?.spec.scansBlocks,
    heldOf(machine?.spec ?? null, Object.values(settings).flat()),
  ]);
  const changed = machine === null || JSON.stringify([texts, axes, scansBlocks, held]) !== asItIs;

  function choose(next: string) {
    const nextKind = next as MachineKind;
    if (texts.wavelength === USUAL_WAVELENGTH[kind]) set("wavelength")(USUAL_WAVELENGTH[nextKind]);
    setKind(nextKind);
  }

  const save = () =>
    run(
      () =>
        keepMachine({
          ...{ slug: machine?.slug ?? null, kind, ...texts, axes, scansBlocks, practice: practice && hasPractice },
          held: Object.fromEntries(settings[kind].map(({ key }) => [key, held[key]])),
        }),
      (slug) => {
        forget();
        toast(
          machine
            ? "Kept. Trials begun before keep what they began with."
            : `${texts.name.trim()} stands on the bench.`,
        );
        if (machine) router.refresh();
        else router.push(`/machine/${slug}`);
      },
    );

  return (
    <form
      className="card grid gap-3 p-5"
      aria-label={machine ? `What is known of ${machine.spec.name}` : "New machine"}
      onSubmit={(e) => {
        e.preventDefault();
        save();
      }}
    >
      <h2 className="text-[17px] font-bold">{machine ? "What is known of it" : "What is known of it now"}</h2>
      <div className="grid grid-cols-2 gap-x-4 gap-y-3">
        <TextField label="Name" value={texts.name} onChange={set("name")} words fault={at("name")} />
        <PickField label="Kind" value={kind} onChange={choose} choices={KINDS} disabled={machine !== null} />
        <TextField label="Working area, X" value={texts.width} onChange={set("width")} fault={at("width")} />
        <TextField label="Working area, Y" value={texts.depth} onChange={set("depth")} fault={at("depth")} />
        <TextField label="Top speed" value={texts.topSpeed} onChange={set("topSpeed")} fault={at("topSpeed")} />
        <TextField
          label="Acceleration, mm/s²"
          value={texts.acceleration}
          onChange={set("acceleration")}
          why="Empty: not known."
          fault={at("acceleration")}
        />
        <TextField
          label="Wavelength, nm"
          value={texts.wavelength}
          onChange={set("wavelength")}
          fault={at("wavelength")}
        />
        <TextField
          label="Speeds of daily work"
          value={texts.workingSpeeds}
          onChange={set("workingSpeeds")}
          fault={at("workingSpeeds")}
        />
      </div>
      <AxesFields axes={axes} onChange={setAxes} />
      <CheckField
        label="Its controller fills closed outlines with rows of its own"
        checked={scansBlocks}
        onChange={setScansBlocks}
      />
      {settings[kind].map((setting) => (
        <HeldFields
          key={setting.key}
          setting={setting}
          value={held[setting.key] ?? NOT_KNOWN}
          faultAt={(field) => at(`held.${setting.key}.${field}`)}
          onChange={(value) => setHeld((h) => ({ ...h, [setting.key]: value }))}
        />
      ))}
      {machine === null && hasPractice && (
        <CheckField
          label="With a practice machine of its name, to learn the way on"
          checked={practice}
          onChange={setPractice}
          className="border-t border-hair pt-3"
        />
      )}
      {fault.message && !(fault.field in texts) && !fault.field.startsWith("held.") && <Fault>{fault.message}</Fault>}
      <div>
        <Button weight="primary" type="submit" disabled={busy || !changed}>
          {machine ? "Keep the change" : "Add it to the bench"}
        </Button>
      </div>
    </form>
  );
}

function textsOf(spec: MachineSpec | null): Texts {
  if (!spec)
    return { name: "", width: "", depth: "", topSpeed: "", acceleration: "", wavelength: "10600", workingSpeeds: "" };
  return {
    name: spec.name,
    width: inUnit(spec.widthMm, "mm"),
    depth: inUnit(spec.depthMm, "mm"),
    topSpeed: inUnit(spec.topSpeedMmPerS, "mmPerS"),
    acceleration: spec.accelerationMmPerS2 === null ? "" : plain(spec.accelerationMmPerS2),
    wavelength: plain(spec.wavelengthNm),
    workingSpeeds: spec.workingSpeedsMmPerS.map((v) => plain(v)).join(" "),
  };
}
