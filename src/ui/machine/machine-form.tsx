"use client";
import clsx from "clsx";
import { useRouter } from "next/navigation";
import { toast } from "sonner";
import { kindText, type MachineKind } from "../../core/machine/machine-kind";
import { type Axes, type MachineSpec, machineKindSchema, UNKNOWN_AXES } from "../../core/machine/machine-spec";
import { knownWavelengthNm, USUAL_OF_KIND } from "../../core/machine/not-known";
import { inUnit, plain } from "../../core/metrology/quantity-text";
import { keepMachine } from "../../server/actions/workshop-actions";
import type { KeptSetting } from "../../server/screens/machine-view";
import { Button } from "../primitives/button";
import { CheckBox } from "../primitives/check-box";
import type { Choice } from "../primitives/closed-pick";
import { PickField, TextField } from "../primitives/fields";
import { Folded } from "../primitives/folded";
import { Faults } from "../primitives/notice";
import { textFields } from "../primitives/text-fields";
import { faultAt, faultsElsewhere, useAction } from "../primitives/use-action";
import { useSurviving } from "../primitives/use-surviving";
import { AxesFields } from "./axes-fields";
import { HeldFields, type HeldTexts, heldOf, NOT_KNOWN } from "./held-fields";

type Texts = Record<"name" | "width" | "depth" | "topSpeed" | "acceleration" | "wavelength" | "workingSpeeds", string>;
type Form = {
  kind: MachineKind;
  texts: Texts;
  axes: Axes;
  scansBlocks: boolean;
  held: HeldTexts;
  /** A practice machine beside a new one. */
  practice: boolean;
};

const KINDS: Choice[] = machineKindSchema.options.map((kind) => ({ value: kind, label: kindText(kind) }));

type Props = {
  /** `null` = a new machine. */
  machine: { slug: string; spec: MachineSpec } | null;
  /** What procedures correct, by kind of machine. */
  settings: Record<MachineKind, KeptSetting[]>;
};

/** What is known of a machine; not known is an answer. */
export function MachineForm({ machine, settings }: Props) {
  const router = useRouter();
  const start = startOf(machine?.spec ?? null, Object.values(settings).flat());
  const [form, setForm, forget] = useSurviving<Form>(`machine ${machine?.slug ?? ""}`, start);
  const { kind, texts, axes, scansBlocks, held, practice } = form;
  const set = (change: Partial<Form>) => setForm((f) => ({ ...f, ...change }));
  const { busy, fault, run } = useAction();
  const field = textFields(texts, (change) => setForm((f) => ({ ...f, texts: change(f.texts) })), fault);
  const at = (name: string) => faultAt(fault, name);
  const elsewhere = faultsElsewhere(fault, (name) => name in texts || name.startsWith("held."));
  const isGalvo = kind === "galvo";
  const isMoreOpen = hasMore(form, start) || faultsElsewhere(fault, isNeededAtOnce).length > 0;
  const changed = machine === null || JSON.stringify(form) !== JSON.stringify(start);

  const save = () =>
    run(
      () =>
        keepMachine({
          slug: machine?.slug ?? null,
          kind,
          ...texts,
          axes,
          practice,
          scansBlocks: scansBlocks && !isGalvo,
          held: Object.fromEntries(
            settings[kind].flatMap(({ key }) => {
              const { has, ...texts } = held[key] ?? NOT_KNOWN;
              return has ? [[key, texts]] : [];
            }),
          ),
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

  const more = (
    <MoreFields
      form={form}
      set={set}
      field={field}
      settings={settings[kind]}
      heldFault={(key, name) => at(`held.${key}.${name}`)}
    />
  );

  return (
    <form
      className={clsx("grid gap-3", machine === null && "card p-5")}
      aria-label={machine ? `Data of ${machine.spec.name}` : "New machine"}
      onSubmit={(e) => {
        e.preventDefault();
        save();
      }}
    >
      <div className="grid grid-cols-2 gap-x-4 gap-y-3">
        <TextField label="Name" {...field("name")} words />
        <PickField
          label="Kind"
          value={kind}
          onChange={(next) => set({ kind: next as MachineKind })}
          choices={KINDS}
          disabled={machine !== null}
        />
        <TextField label={isGalvo ? "Field, X" : "Working area, X"} {...field("width")} />
        <TextField label={isGalvo ? "Field, Y" : "Working area, Y"} {...field("depth")} />
      </div>
      {machine === null ? (
        <Folded title="More data: speeds, wavelength, axes, controller" isOpen={isMoreOpen}>
          {more}
        </Folded>
      ) : (
        more
      )}
      {machine === null && (
        <CheckBox
          label="With a practice machine of its name, to learn the way on"
          checked={practice}
          onChange={(next) => set({ practice: next })}
          className="border-t border-hair pt-3"
        />
      )}
      <Faults of={elsewhere} />
      <div>
        <Button weight="primary" type="submit" disabled={busy || !changed}>
          {machine ? "Keep the change" : "Add it to the bench"}
        </Button>
      </div>
    </form>
  );
}

type MoreProps = {
  form: Form;
  set: (change: Partial<Form>) => void;
  field: ReturnType<typeof textFields<Texts>>;
  /** Settings of this kind of machine. */
  settings: readonly KeptSetting[];
  heldFault: (setting: string, name: string) => string;
};

/** Data that can be added later: speeds, wavelength, axes, settings of the controller. */
function MoreFields({ form: { kind, axes, scansBlocks, held }, set, field, settings, heldFault }: MoreProps) {
  const isGalvo = kind === "galvo";
  return (
    <div className="grid gap-3">
      <div className="grid grid-cols-2 gap-x-4 gap-y-3">
        <TextField
          label="Top speed"
          {...field("topSpeed")}
          why={`If unknown, leave empty. Burns then use at most ${plain(USUAL_OF_KIND[kind].topSpeedMmPerS)} mm/s.`}
        />
        {!isGalvo && (
          <TextField label="Acceleration, mm/s²" {...field("acceleration")} why="If unknown, leave empty." />
        )}
        <TextField
          label="Wavelength, nm"
          {...field("wavelength")}
          why={`If unknown, leave empty. Usual: ${plain(USUAL_OF_KIND[kind].wavelengthNm)}.`}
        />
        <TextField label="Speeds of daily work" {...field("workingSpeeds")} />
      </div>
      {!isGalvo && (
        <>
          <AxesFields axes={axes} onChange={(next) => set({ axes: next })} />
          <CheckBox
            label="Its controller fills closed outlines with rows of its own"
            checked={scansBlocks}
            onChange={(next) => set({ scansBlocks: next })}
          />
        </>
      )}
      {settings.map((setting) => (
        <HeldFields
          key={setting.key}
          setting={setting}
          value={held[setting.key] ?? NOT_KNOWN}
          faultAt={(name) => heldFault(setting.key, name)}
          onChange={(value) => set({ held: { ...held, [setting.key]: value } })}
        />
      ))}
    </div>
  );
}

/** A new machine needs these fields. The others can be filled in later. */
function isNeededAtOnce(field: string): boolean {
  return ["name", "kind", "width", "depth"].includes(field);
}

function hasMore(form: Form, start: Form): boolean {
  const moreOf = ({ texts: { name, width, depth, ...texts }, axes, scansBlocks, held }: Form) =>
    JSON.stringify({ texts, axes, scansBlocks, held });
  return moreOf(form) !== moreOf(start);
}

function startOf(spec: MachineSpec | null, settings: readonly KeptSetting[]): Form {
  return {
    kind: spec?.kind ?? "CO2 gantry",
    texts: textsOf(spec),
    axes: spec?.axes ?? UNKNOWN_AXES,
    scansBlocks: spec?.scansBlocks ?? true,
    held: heldOf(spec, settings),
    practice: spec === null,
  };
}

function textsOf(spec: MachineSpec | null): Texts {
  if (!spec)
    return { name: "", width: "", depth: "", topSpeed: "", acceleration: "", wavelength: "", workingSpeeds: "" };
  const wavelengthNm = knownWavelengthNm(spec);
  return {
    name: spec.name,
    width: inUnit(spec.widthMm, "mm"),
    depth: inUnit(spec.depthMm, "mm"),
    topSpeed: spec.assumed?.includes("topSpeedMmPerS") ? "" : inUnit(spec.topSpeedMmPerS, "mmPerS"),
    acceleration: spec.accelerationMmPerS2 === null ? "" : plain(spec.accelerationMmPerS2),
    wavelength: wavelengthNm === null ? "" : plain(wavelengthNm),
    workingSpeeds: spec.workingSpeedsMmPerS.map((v) => plain(v)).join(" "),
  };
}
