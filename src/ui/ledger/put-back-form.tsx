"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { toast } from "sonner";
import { valueText } from "../../core/settings/entry-text";
import { putBackValue } from "../../server/actions/workshop-actions";
import type { LedgerRow } from "../../server/ledger/ledger-view";
import { Button } from "../primitives/button";
import { CheckBox } from "../primitives/check-box";
import { PickField, TextField } from "../primitives/fields";
import { Fault } from "../primitives/notice";
import { useAction } from "../primitives/use-action";

/** An earlier value is entered again by hand, and recorded as that. */
export function PutBackForm({ row, onDone }: { row: LedgerRow; onDone: () => void }) {
  const router = useRouter();
  const [holderId, setHolderId] = useState(String(row.holderId ?? row.holders[0]?.id ?? ""));
  const [note, setNote] = useState("");
  const [readBack, setReadBack] = useState(false);
  const { busy, fault, run } = useAction();
  return (
    <form
      aria-label={`Put back ${row.label}`}
      className="grid gap-3 rounded-md bg-paper p-3 text-ink"
      onSubmit={(e) => {
        e.preventDefault();
        run(
          () =>
            putBackValue({
              machine: row.machineSlug,
              entryId: row.id,
              holderId: Number(holderId),
              readBack,
              note,
            }),
          () => {
            toast("Recorded as put back.");
            onDone();
            router.refresh();
          },
        );
      }}
    >
      <p>
        {isEmpty(row) ? (
          "There were no entries: take out all that are there."
        ) : (
          <>
            Enter it there: <b className="num font-semibold">{valueText(row.value, row.shownUnit)}</b>
          </>
        )}
      </p>
      <div className="grid gap-3 sm:grid-cols-2">
        <PickField
          label="Entered in"
          value={holderId}
          onChange={setHolderId}
          choices={row.holders.map((h) => ({ value: String(h.id), label: h.name }))}
        />
        <TextField label="Note" words value={note} onChange={setNote} />
      </div>
      <CheckBox label="I read it back from there" checked={readBack} onChange={setReadBack} />
      {fault.message && <Fault>{fault.message}</Fault>}
      <div className="flex gap-2">
        <Button weight="primary" type="submit" disabled={busy}>
          It is put back
        </Button>
        <Button onClick={onDone}>Back</Button>
      </div>
    </form>
  );
}

function isEmpty({ value }: LedgerRow): boolean {
  return value?.shape === "table" && value.rows.length === 0;
}
