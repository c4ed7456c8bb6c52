"use client";
import { useRouter } from "next/navigation";
import { toast } from "sonner";
import { MAP_WORDS } from "../../core/settings/field-table";
import { writeDown } from "../../server/actions/workshop-actions";
import type { HeldView, MachineView } from "../../server/screens/machine-view";
import { Button } from "../primitives/button";
import { CheckBox } from "../primitives/check-box";
import { TextField } from "../primitives/fields";
import { Faults } from "../primitives/notice";
import { faultAt, faultsElsewhere, useAction } from "../primitives/use-action";
import { useSurviving } from "../primitives/use-surviving";
import { editableRows, type ValueRow, ValueRows } from "./value-rows";

type Props = {
  view: MachineView;
  held: HeldView;
  /** `found`: read back; `hand`: changed by a person, who says why. */
  origin: "found" | "hand";
  onDone: () => void;
  canClose: boolean;
};
type Texts = { rows: ValueRow[]; note: string; readBack: boolean };

/** The controller stores no map. */
const NO_MAP: ValueRow[] = [{ at: "", text: MAP_WORDS.none }];

/** What a place holds, typed in. */
export function WriteDownForm({ view, held, origin, onDone, canClose }: Props) {
  const { setting, holder, unit, entry } = held;
  const isMap = setting.shape === "map";
  const router = useRouter();
  const start: Texts = { rows: editableRows(entry?.value ?? null, unit), note: "", readBack: false };
  const [texts, setTexts, forget] = useSurviving<Texts>(
    `${origin} ${view.slug} ${setting.key} ${holder.id} ${entry?.id ?? 0}`,
    start,
  );
  const { busy, fault, run } = useAction();
  const elsewhere = faultsElsewhere(fault, (field) => field === "note");
  const practiceTable = view.practiceTables?.[setting.key];
  const save = (rows: ValueRow[] | null) =>
    run(
      () =>
        writeDown({
          machine: view.slug,
          setting: setting.key,
          holderId: holder.id,
          rows,
          origin,
          note: texts.note,
          readBack: texts.readBack,
        }),
      () => {
        toast("Written down.");
        forget();
        onDone();
        router.refresh();
      },
    );
  return (
    <form
      aria-label={`${origin === "found" ? "What it holds" : "Entered by hand"}: ${setting.label}, ${holder.name}`}
      className="mt-2 grid gap-3 rounded-md bg-paper p-3"
      onSubmit={(e) => {
        e.preventDefault();
        save(isMap ? NO_MAP : texts.rows);
      }}
    >
      {isMap ? (
        <p className="text-[14px] text-ink2">
          Only a trial creates this value. If the controller has none, enter “none”.
        </p>
      ) : (
        <ValueRows
          setting={setting}
          unit={unit}
          rows={texts.rows}
          onChange={(rows) => setTexts((t) => ({ ...t, rows }))}
          isAtFault={(field) => faultAt(fault, field) !== ""}
        />
      )}
      {setting.shape === "table" && origin === "found" && (
        <p className="text-[14px] text-ink2">No rows: the table is empty.</p>
      )}
      <TextField
        label={origin === "hand" ? "Why it was changed" : "Note"}
        words
        value={texts.note}
        onChange={(note) => setTexts((t) => ({ ...t, note }))}
        fault={faultAt(fault, "note")}
      />
      {origin === "hand" && (
        <CheckBox
          label="I read it back from there"
          checked={texts.readBack}
          onChange={(readBack) => setTexts((t) => ({ ...t, readBack }))}
        />
      )}
      <Faults of={elsewhere} />
      <div className="flex flex-wrap gap-2">
        <Button weight="primary" type="submit" disabled={busy}>
          {isMap ? "Enter “none”" : origin === "found" ? "That is what it holds" : "Write it down"}
        </Button>
        {origin === "found" && (
          <Button disabled={busy} onClick={() => save(null)}>
            Not known
          </Button>
        )}
        {origin === "found" && practiceTable && holder.role === "controller" && (
          <Button disabled={busy} onClick={() => save(editableRows({ shape: "table", rows: practiceTable }, unit))}>
            Read it back from the practice machine
          </Button>
        )}
        {canClose && (
          <Button
            onClick={() => {
              forget();
              onDone();
            }}
          >
            Back
          </Button>
        )}
      </div>
    </form>
  );
}
