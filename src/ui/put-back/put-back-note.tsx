"use client";
import { useRouter } from "next/navigation";
import { toast } from "sonner";
import { noteToPutBack } from "../../server/actions/workshop-actions";
import { OneLineForm } from "../primitives/one-line-form";

/** Something set for a while only: it stays on the bench until it is put back. */
export function PutBackNote({ machine }: { machine: string }) {
  const router = useRouter();
  return (
    <OneLineForm
      name="Something to put back"
      label="Set for a while, such as travel limits off"
      button="Remember it"
      keptAs={`put back ${machine}`}
      send={(what) => noteToPutBack({ machine, what })}
      onSent={() => {
        toast("It stays on the bench until it is put back.");
        router.refresh();
      }}
    />
  );
}
