"use client";
import { useRouter } from "next/navigation";
import { toast } from "sonner";
import { inUnit, plain } from "../../core/metrology/quantity-text";
import type { PartKind } from "../../core/procedures/part-spec";
import { keepPart } from "../../server/actions/workshop-actions";
import type { PartView } from "../../server/screens/machine-view";
import { Button } from "../primitives/button";
import { PickField, TextField } from "../primitives/fields";
import { Fault } from "../primitives/notice";
import { textFields } from "../primitives/text-fields";
import { useAction } from "../primitives/use-action";
import { useSurviving } from "../primitives/use-surviving";

type Texts = Record<
  | "label"
  | "focalLength"
  | "workingDistance"
  | "field"
  | "lensWavelength"
  | "ring"
  | "printed"
  | "rollerDiameter"
  | "steps",
  string
> & { drive: "roller" | "chuck" };

/** What is known of an optic or a rotary; empty is not known. `part` is `null` for a new one. */
export function PartForm({ kind, part, onDone }: { kind: PartKind; part: PartView | null; onDone: () => void }) {
  const router = useRouter();
  const [texts, setTexts, forget] = useSurviving<Texts>(`${kind} ${part?.id ?? ""}`, textsOf(part));
  const { busy, fault, run } = useAction();
  const field = textFields(texts, setTexts, fault);
  return (
    <form
      aria-label={part ? `What is known of ${part.spec.label}` : `New ${kind}`}
      className="mt-3 grid gap-3 rounded-md bg-paper p-3"
      onSubmit={(e) => {
        e.preventDefault();
        run(
          () => keepPart({ id: part?.id ?? null, kind, ...texts }),
          () => {
            forget();
            toast(part ? "Kept from now on." : `${texts.label.trim()} is there: fit it when it is fitted.`);
            onDone();
            router.refresh();
          },
        );
      }}
    >
      <div className="grid grid-cols-2 gap-3">
        <TextField label="Name" words {...field("label")} />
        {kind === "optic" ? (
          <>
            <TextField label="Focal length" {...field("focalLength")} why="Empty: not known." />
            <TextField
              label="Working distance"
              {...field("workingDistance")}
              why="Lens housing to work, by its maker."
            />
            <TextField label="Field, one side" {...field("field")} why="Galvos: what it really covers." />
            <TextField label="For a wavelength of, nm" {...field("lensWavelength")} />
            <TextField label="Ring of its housing, Ø" {...field("ring")} why="Tells lenses apart that look alike." />
            <TextField label="Printed on it" words {...field("printed")} className="col-span-2" />
          </>
        ) : (
          <>
            <PickField
              label="Drive"
              {...field("drive")}
              choices={[
                { value: "roller", label: "roller" },
                { value: "chuck", label: "chuck" },
              ]}
            />
            {texts.drive === "roller" && (
              <TextField label="Roller diameter" {...field("rollerDiameter")} why="Empty: not known." />
            )}
            <TextField label="Steps per revolution" {...field("steps")} why="Empty: not known." />
          </>
        )}
      </div>
      {fault.message && !(fault.field in texts) && <Fault>{fault.message}</Fault>}
      <div className="flex gap-2">
        <Button weight="primary" type="submit" disabled={busy}>
          {part ? "Keep the change" : "Add it"}
        </Button>
        <Button onClick={onDone}>Back</Button>
      </div>
    </form>
  );
}

function textsOf(part: PartView | null): Texts {
  const empty: Texts = {
    ...{ label: "", focalLength: "", workingDistance: "", field: "", lensWavelength: "", ring: "", printed: "" },
    ...{ drive: "roller", rollerDiameter: "", steps: "" },
  };
  if (!part) return empty;
  const mm = (value: number | null) => (value === null ? "" : inUnit(value, "mm"));
  const { spec } = part;
  if (spec.kind === "optic")
    return {
      ...{ ...empty, label: spec.label, printed: spec.printed, focalLength: mm(spec.focalLengthMm) },
      ...{ workingDistance: mm(spec.workingDistanceMm), field: mm(spec.fieldMm), ring: mm(spec.ringDiameterMm) },
      lensWavelength: spec.wavelengthNm === null ? "" : plain(spec.wavelengthNm),
    };
  return {
    ...empty,
    ...{ label: spec.label, drive: spec.drive, rollerDiameter: mm(spec.rollerDiameterMm) },
    steps: spec.stepsPerRevolution === null ? "" : plain(spec.stepsPerRevolution),
  };
}
