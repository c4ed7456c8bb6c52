"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { toast } from "sonner";
import { inUnit, plain } from "../../core/metrology/quantity-text";
import { UNITS, type UnitId } from "../../core/metrology/units";
import { editableText } from "../../core/procedures/entry-text";
import {
  type Axes,
  axesSchema,
  type HeldSetting,
  type MachineKind,
  type MachineSpec,
  UNKNOWN_AXES,
} from "../../core/procedures/machine-spec";
import type { KeptSetting } from "../../server/machine-view";
import { keepMachine } from "../../server/workshop-actions";
import { Button } from "../primitives/button";
import { CheckField, type Choice, PickField, TextField } from "../primitives/fields";
import { Fault } from "../primitives/notice";
import { useAction } from "../primitives/use-action";
import { useSurviving } from "../primitives/use-surviving";
import { AxesDrawing } from "./axes-drawing";

type Texts = Record<"name" | "width" | "depth" | "topSpeed" | "acceleration" | "wavelength" | "workingSpeeds", string>;
type HeldTexts = Record<
  string,
  { unit: UnitId; step: string; low: string; high: string; tableKind: HeldSetting["tableKind"]; sense: 1 | -1 }
>;

const KINDS: Choice[] = [
  { value: "CO2 gantry", label: "CO₂ gantry" },
  { value: "diode gantry", label: "diode gantry" },
  { value: "galvo", label: "galvo" },
];
const USUAL_WAVELENGTH: Record<MachineKind, string> = { "CO2 gantry": "10600", "diode gantry": "455", galvo: "1064" };
const TABLE_KINDS: Choice[] = [
  { value: "not known", label: "not known" },
  { value: "interpolated", label: "interpolated" },
  { value: "exact speed only", label: "exact speeds only" },
];
/** A step of a thousandth of the unit that a setting is kept in is common practice, no source. */
const USUAL_STEP = 0.001;
const STEP_DECIMALS = 6;
const NOT_KNOWN: HeldTexts[string] = { unit: "mm", step: "", low: "", high: "", tableKind: "not known", sense: 1 };
const HOMES = axesSchema.shape.home.options.map(asChoice);
const X_WAYS = axesSchema.shape.x.options.map(asChoice);
const Y_WAYS = axesSchema.shape.y.options.map(asChoice);

function asChoice(value: string): Choice {
  return { value, label: value };
}

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
  const [held, setHeld] = useState<HeldTexts>(() => heldOf(machine?.spec ?? null, settings));
  const [practice, setPractice] = useState(machine === null);
  const { busy, fault, run } = useAction();
  const set = (key: keyof Texts) => (value: string) => setTexts((t) => ({ ...t, [key]: value }));
  const at = (field: string) => (fault.field === field ? fault.message : "");
  const hasPractice = practiceKinds.includes(kind);
  const asItIs = JSON.stringify([
    textsOf(machine?.spec ?? null),
    machine?.spec.axes,
    machine?.spec.scansBlocks,
    heldOf(machine?.spec ?? null, settings),
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
      <div className="grid grid-cols-[1fr_1fr] items-start gap-x-4 gap-y-3 border-t border-hair pt-3">
        <div className="grid gap-3">
          <PickField
            label="Home corner"
            value={axes.home}
            choices={HOMES}
            onChange={(home) => setAxes((a) => ({ ...a, home: home as Axes["home"] }))}
          />
          <PickField
            label="X counts up"
            value={axes.x}
            choices={X_WAYS}
            onChange={(x) => setAxes((a) => ({ ...a, x: x as Axes["x"] }))}
          />
          <PickField
            label="Y counts up"
            value={axes.y}
            choices={Y_WAYS}
            onChange={(y) => setAxes((a) => ({ ...a, y: y as Axes["y"] }))}
          />
        </div>
        <AxesDrawing axes={axes} />
      </div>
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

type HeldProps = {
  setting: KeptSetting;
  value: HeldTexts[string];
  faultAt: (field: string) => string;
  onChange: (value: HeldTexts[string]) => void;
};

/** How the controller takes one setting. */
function HeldFields({ setting, value, faultAt, onChange }: HeldProps) {
  const { label, larger } = setting;
  const set = (change: Partial<HeldTexts[string]>) => onChange({ ...value, ...change });
  return (
    <fieldset className="grid gap-x-4 gap-y-3 border-t border-hair pt-3 sm:grid-cols-3">
      <legend className="float-left mb-2 w-full font-semibold sm:col-span-3">{label}</legend>
      <PickField
        label="It takes"
        value={value.unit}
        choices={unitsFor(setting.unit)}
        onChange={(unit) => set({ unit: unit as UnitId })}
      />
      <TextField label="Smallest step" value={value.step} onChange={(step) => set({ step })} fault={faultAt("step")} />
      <PickField
        label="Its table is"
        value={value.tableKind}
        choices={TABLE_KINDS}
        onChange={(k) => set({ tableKind: k as HeldSetting["tableKind"] })}
      />
      {larger && (
        <PickField
          label="A larger entry"
          value={String(value.sense)}
          choices={[
            { value: "1", label: larger.positive },
            { value: "-1", label: larger.negative },
          ]}
          onChange={(sense) => set({ sense: sense === "1" ? 1 : -1 })}
        />
      )}
      <TextField label="Smallest value" value={value.low} onChange={(low) => set({ low })} fault={faultAt("low")} />
      <TextField label="Largest value" value={value.high} onChange={(high) => set({ high })} fault={faultAt("high")} />
      <p className="text-[14px] text-ink2 sm:col-span-3">Smallest and largest value empty: not known.</p>
    </fieldset>
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

function heldOf(spec: MachineSpec | null, settings: Props["settings"]): HeldTexts {
  const all = Object.values(settings).flat();
  return Object.fromEntries(
    all.map(({ key, unit }) => {
      const known = spec?.held[key];
      const own = known?.unit ?? unit;
      const end = (value: number | undefined) => (value === undefined ? "" : editableText(value, own));
      return [
        key,
        {
          ...{ unit: own, step: inUnit(known?.step ?? USUAL_STEP, own, STEP_DECIMALS) },
          ...{ low: end(known?.range?.low), high: end(known?.range?.high) },
          ...{ tableKind: known?.tableKind ?? NOT_KNOWN.tableKind, sense: known?.sense ?? NOT_KNOWN.sense },
        },
      ];
    }),
  );
}

/** Units of the same kind as that of the setting. */
function unitsFor(unit: UnitId): Choice[] {
  const { dimension } = UNITS[unit];
  const same = (Object.keys(UNITS) as UnitId[]).filter((id) => UNITS[id].dimension === dimension);
  return same.map((id) => ({ value: id, label: UNITS[id].symbol }));
}
