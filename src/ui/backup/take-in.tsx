"use client";
import { useRouter } from "next/navigation";
import { toast } from "sonner";
import { benchFactsText } from "../../core/machine/bench-facts";
import { takeInBackup } from "../../server/actions/backup-actions";
import { FilePick } from "../primitives/file-pick";
import { useAction } from "../primitives/use-action";

/** A backup that was downloaded once, or comes from another computer. */
export function TakeIn() {
  const router = useRouter();
  const { busy, fault, run } = useAction();
  const take = (file: File) => {
    const form = new FormData();
    form.set("backup", file);
    run(
      () => takeInBackup(form),
      (facts) => {
        toast(`Found whole: ${benchFactsText(facts)}. It is in the list now.`);
        router.refresh();
      },
    );
  };
  return (
    <section className="card grid gap-2 p-5">
      <h2 className="font-semibold">From a file</h2>
      <p className="text-ink2">It is checked and joins the list. The bench stays as it is until you restore it.</p>
      <FilePick
        label="Take in a backup (.sqlite):"
        accept=".sqlite,application/vnd.sqlite3"
        disabled={busy}
        fault={fault.message}
        onFile={take}
      />
    </section>
  );
}
