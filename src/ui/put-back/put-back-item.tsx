"use client";
import { useRouter } from "next/navigation";
import { toast } from "sonner";
import { settlePutBack } from "../../server/actions/workshop-actions";
import type { PutBackView } from "../../server/machine/to-put-back-view";
import { Ago } from "../primitives/ago";
import { Button } from "../primitives/button";
import { Fault } from "../primitives/notice";
import { useAction } from "../primitives/use-action";

type Props = {
  item: PutBackView;
  /** Address of its machine, and its name where that is not plain from the page. */
  machine: string;
  name?: string;
  now: number;
};

/** One thing to put back, until it is. */
export function PutBackItem({ item, machine, name, now }: Props) {
  const router = useRouter();
  const { busy, fault, run } = useAction();
  const settle = (isBack: boolean) =>
    run(
      () => settlePutBack({ machine, id: item.id, isBack }),
      () => {
        router.refresh();
        if (isBack)
          toast(`Put back: ${item.what}`, { action: { label: "Not after all", onClick: () => settle(false) } });
      },
    );
  return (
    <div className="flex items-start justify-between gap-3">
      <div>
        <p className="first-letter:uppercase">{item.what}</p>
        <p className="text-[14px] text-ink2">
          {name && `${name} · `}for <Ago at={item.openedAt} now={now} plain />
        </p>
        {item.value && <p className="text-[14px]">it was: {item.value}</p>}
        {item.isUnknown && (
          <p className="text-[14px] text-ink2">
            What it was is not in the ledger: look it up, enter it, and write it down.
          </p>
        )}
        {fault.message && <Fault>{fault.message}</Fault>}
      </div>
      <Button weight="small" disabled={busy} onClick={() => settle(true)}>
        {item.value ? "Entered again" : "Put back"}
        <span className="sr-only"> {item.what}</span>
      </Button>
    </div>
  );
}
