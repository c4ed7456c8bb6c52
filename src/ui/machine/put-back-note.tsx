"use client";
import { useRouter } from "next/navigation";
import { toast } from "sonner";
import { noteToPutBack } from "../../server/workshop-actions";
import { Button } from "../primitives/button";
import { TextField } from "../primitives/fields";
import { useAction } from "../primitives/use-action";
import { useSurviving } from "../primitives/use-surviving";

/** Something set for a while only: it stays on the bench until it is put back. */
export function PutBackNote({ machine }: { machine: string }) {
  const router = useRouter();
  const [what, setWhat, forget] = useSurviving(`put back ${machine}`, "");
  const { busy, fault, run } = useAction();
  return (
    <form
      aria-label="Something to put back"
      className="flex items-end gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        run(
          () => noteToPutBack({ machine, what }),
          () => {
            toast("It stays on the bench until it is put back.");
            forget();
            router.refresh();
          },
        );
      }}
    >
      <div className="min-w-0 flex-1">
        <TextField
          label="Set for a while, such as travel limits off"
          words
          value={what}
          onChange={setWhat}
          fault={fault.message}
        />
      </div>
      <Button type="submit" disabled={busy}>
        Remember it
      </Button>
    </form>
  );
}
