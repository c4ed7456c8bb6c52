"use client";
import { useRouter } from "next/navigation";
import { useMemo, useState } from "react";
import { toast } from "sonner";
import type { RoundSpec } from "../../../core/coupon/round-spec";
import type { Bed } from "../../../core/machine/counted";
import { type GcodeDialect, gcodeDialectSchema } from "../../../core/machine/gcode-dialect";
import { plain } from "../../../core/metrology/quantity-text";
import { gcodeChunks } from "../../../formats/gcode-writer";
import { setDialect } from "../../../server/actions/trial-actions";
import { Button } from "../../primitives/button";
import type { Choice } from "../../primitives/closed-pick";
import { LinesField, PickField, TextField } from "../../primitives/fields";
import { Fault } from "../../primitives/notice";
import { faultAt, useAction } from "../../primitives/use-action";

type Typed = Record<keyof GcodeDialect, string>;

const UNITS: Choice[] = [
  { value: "mm", label: "mm, mm/min" },
  { value: "in", label: "inch, in/min" },
];
const LETTERS: Choice[] = ["S", "P", "Q"].map((value) => ({ value, label: value }));
const POWER_WITH: Choice[] = [
  { value: "moves", label: "on every move" },
  { value: "beam code", label: "where the beam goes on" },
];
const PREVIEW_LINES = 9;

type Props = {
  machine: string;
  machineSlug: string;
  dialect: GcodeDialect;
  bed: Bed;
  couponCode: string;
  spec: RoundSpec;
};

/** How the machine takes G-code, with the first lines of the file as they will be. */
export function DialectForm({ machine, machineSlug, dialect, bed, couponCode, spec }: Props) {
  const router = useRouter();
  const [typed, setTyped] = useState(() => typedOf(dialect));
  const { busy, fault, setFault, run } = useAction();
  const read = useMemo(() => gcodeDialectSchema.safeParse(dialectOf(typed)), [typed]);
  const preview = useMemo(
    () => (read.success ? firstLines(spec, { couponCode, machineName: machine, dialect: read.data, bed }) : ""),
    [read, spec, couponCode, machine, bed],
  );
  const set = (key: keyof GcodeDialect) => (value: string) => setTyped({ ...typed, [key]: value });
  const at = (key: keyof GcodeDialect) => faultAt(fault, key) || faultAt(fault, `dialect.${key}`);
  const changed = JSON.stringify(typed) !== JSON.stringify(typedOf(dialect));

  function save() {
    const [first, ...more] = (read.error?.issues ?? []).map(({ path, message }) => ({
      field: String(path[0] ?? ""),
      message,
    }));
    if (first) return setFault({ ...first, more });
    if (!read.success) return;
    run(
      () => setDialect({ machine: machineSlug, dialect: read.data }),
      () => {
        toast(`Kept. Files for ${machine} are written so from now on.`);
        router.refresh();
      },
    );
  }

  return (
    <form
      className="mt-2 grid gap-3"
      aria-label="G-code"
      onSubmit={(e) => {
        e.preventDefault();
        save();
      }}
    >
      <div className="grid grid-cols-2 gap-x-4 gap-y-2">
        <PickField label="Unit" value={typed.unit} choices={UNITS} onChange={set("unit")} />
        <PickField label="Power stands" value={typed.powerWith} choices={POWER_WITH} onChange={set("powerWith")} />
        <PickField label="Power word" value={typed.powerLetter} choices={LETTERS} onChange={set("powerLetter")} />
        <TextField
          label="Its number at 100 %"
          value={typed.powerAtFull}
          fault={at("powerAtFull")}
          onChange={set("powerAtFull")}
        />
        <TextField label="Beam on" value={typed.beamOn} fault={at("beamOn")} onChange={set("beamOn")} />
        <TextField label="Beam off" value={typed.beamOff} fault={at("beamOff")} onChange={set("beamOff")} />
        <LinesField label="Own lines at the start" value={typed.start} fault={at("start")} onChange={set("start")} />
        <LinesField label="Own lines at the end" value={typed.end} fault={at("end")} onChange={set("end")} />
      </div>
      {preview && (
        <figure>
          <figcaption className="text-[14px] text-ink2">The file then begins:</figcaption>
          <pre className="num whitespace-pre-wrap break-words rounded-md border border-hair bg-paper p-2 text-[13px]">
            {preview}
          </pre>
        </figure>
      )}
      {fault.message && fault.field === "" && <Fault>{fault.message}</Fault>}
      <div className="flex gap-2">
        <Button type="submit" disabled={busy || !changed}>
          Keep for {machine}
        </Button>
        {changed && <Button onClick={() => setTyped(typedOf(dialect))}>As it was</Button>}
      </div>
    </form>
  );
}

/** `mm, S1000, M3 and M5`. */
export function dialectText({ unit, powerLetter, powerAtFull, beamOn, beamOff }: GcodeDialect): string {
  return `${unit}, ${powerLetter}${plain(powerAtFull)}, ${beamOn}, ${beamOff}`;
}

function typedOf(d: GcodeDialect): Typed {
  return { ...d, powerAtFull: plain(d.powerAtFull), start: d.start.join("\n"), end: d.end.join("\n") };
}

function dialectOf(typed: Typed): unknown {
  const lines = (text: string) =>
    text
      .split("\n")
      .map((l) => l.trim())
      .filter((l) => l !== "");
  return {
    ...typed,
    powerAtFull: typed.powerAtFull.trim() === "" ? 0 : Number(typed.powerAtFull.replace(",", ".")) || 0,
    beamOn: typed.beamOn.trim().toUpperCase(),
    beamOff: typed.beamOff.trim().toUpperCase(),
    start: lines(typed.start),
    end: lines(typed.end),
  };
}

function firstLines(spec: RoundSpec, options: Parameters<typeof gcodeChunks>[1]): string {
  const { value } = gcodeChunks(spec, options).next();
  return String(value ?? "")
    .split("\n")
    .slice(0, PREVIEW_LINES + options.dialect.start.length)
    .join("\n");
}
