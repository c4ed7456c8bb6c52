"use client";
import { useRouter } from "next/navigation";
import { toast } from "sonner";
import type { PartKind } from "../../core/machine/part-spec";
import { keepPart } from "../../server/actions/workshop-actions";
import type { PartView } from "../../server/screens/machine-view";
import { Button } from "../primitives/button";
import { TextField } from "../primitives/fields";
import { Faults } from "../primitives/notice";
import { textFields } from "../primitives/text-fields";
import { faultsElsewhere, useAction } from "../primitives/use-action";
import { useSurviving } from "../primitives/use-surviving";
import { type PartTexts, partTexts } from "./part-texts";
import { RotaryFields } from "./rotary-fields";

/** What is known of an optic or a rotary; empty is not known. `part` is `null` for a new one. */
export function PartForm({ kind, part, onDone }: { kind: PartKind; part: PartView | null; onDone: () => void }) {
  const router = useRouter();
  const [texts, setTexts, forget] = useSurviving<PartTexts>(`${kind} ${part?.id ?? ""}`, partTexts(part));
  const { busy, fault, run } = useAction();
  const elsewhere = faultsElsewhere(fault, (name) => name in texts);
  const { setAside, ...words } = texts;
  const field = textFields(words, (change) => setTexts((all) => ({ ...all, ...change(all) })), fault);
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
            <TextField label="Focal length" {...field("focalLength")} why="If unknown, leave empty." />
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
          <RotaryFields
            texts={texts}
            field={field}
            setAside={setAside}
            onSetAside={(next) => setTexts((all) => ({ ...all, setAside: next }))}
          />
        )}
      </div>
      <Faults of={elsewhere} />
      <div className="flex gap-2">
        <Button weight="primary" type="submit" disabled={busy}>
          {part ? "Keep the change" : "Add it"}
        </Button>
        <Button onClick={onDone}>Back</Button>
      </div>
    </form>
  );
}
