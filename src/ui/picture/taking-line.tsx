"use client";
import { Button, buttonClass } from "../primitives/button";
import { Link } from "../primitives/link";
import { Fault } from "../primitives/notice";

type Props = {
  label: string;
  /** How much is read. */
  status: string;
  action: string;
  disabled: boolean;
  fault: string;
  /** The Read screen. */
  back: string;
  onTake: () => void;
};

/** The line at the bottom of a picture: how much is read, and the button that saves it. */
export function TakingLine({ label, status, action, disabled, fault, back, onTake }: Props) {
  return (
    <section aria-label={label} data-verdict-line className="sticky bottom-0 z-10 border-t border-hair bg-sheet">
      <div className="mx-auto flex min-h-13 max-w-[1680px] flex-wrap items-center gap-x-6 gap-y-1 px-6 py-1 max-sm:px-4">
        <p className="text-[14px] text-ink2" role="status">
          {status}
        </p>
        <span className="ml-auto flex items-center gap-3">
          {fault && <Fault>{fault}</Fault>}
          <Link href={back} className={buttonClass("quiet")}>
            Back to reading
          </Link>
          <Button weight="primary" disabled={disabled} onClick={onTake}>
            {action}
          </Button>
        </span>
      </div>
    </section>
  );
}
