"use client";
import { FileSpreadsheet } from "lucide-react";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { toast } from "sonner";
import { takeSheet } from "../../../server/actions/trial-actions";
import { Button, buttonClass } from "../../primitives/button";
import { FilePick } from "../../primitives/file-pick";
import { Folded } from "../../primitives/folded";
import { useAction } from "../../primitives/use-action";

type Props = { trialId: number; n: number; canTake: boolean; solved: boolean; onTaken: () => void };

/** Readings by way of a spreadsheet: a sheet to fill in, and back; what was read and what it amounts to, to take away. */
export function SheetCard({ trialId, n, canTake, solved, onTaken }: Props) {
  const router = useRouter();
  const { busy, fault, run } = useAction();
  const base = `/api/trials/${trialId}/rounds/${n}`;
  const [sheet, setSheet] = useState("");
  const take = (text: string, sure: boolean) => {
    setSheet(text);
    run(
      () => takeSheet({ trialId, n, text, sure }),
      (count) => {
        toast(count === 0 ? "These readings were taken before." : `${count} readings taken from the sheet.`);
        router.refresh();
        onTaken();
      },
    );
  };
  return (
    <Folded title="Spreadsheet and files" titleClass="font-semibold" className="card px-5 py-3">
      <div className="mt-3 flex flex-wrap gap-2">
        <FileLink href={`${base}/sheet.csv`} label="Sheet to fill in" />
        <FileLink href={`${base}/readings.csv`} label="What was read" />
        {solved && <FileLink href={`${base}/results.csv`} label="Results" />}
        <FileLink href={`${base}/trial.json`} label="The whole trial (JSON)" />
      </div>
      {canTake && (
        <div className="mt-3">
          <FilePick
            label="Take the readings of a filled sheet:"
            accept=".csv,text/csv"
            disabled={busy}
            fault={fault.message}
            onText={(text) => take(text, false)}
          />
        </div>
      )}
      {fault.field === "question" && (
        <Button weight="small" className="mt-2 !text-[16px]" disabled={busy} onClick={() => take(sheet, true)}>
          They are right: take them
        </Button>
      )}
    </Folded>
  );
}

function FileLink({ href, label }: { href: string; label: string }) {
  return (
    <a className={buttonClass("small", "!text-[16px]")} href={href} download>
      <FileSpreadsheet size={16} aria-hidden="true" /> {label}
    </a>
  );
}
