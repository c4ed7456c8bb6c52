"use client";
import { fullDate } from "../primitives/ago";
import { Notice } from "../primitives/notice";

/** The computer's clock lies behind what the bench has seen: said on every page until it is right. */
export function ClockNote({ clock, newest }: { clock: number; newest: number }) {
  return (
    <div role="alert" className="no-print border-b border-hair bg-ember-tint px-6 py-2 max-sm:px-4">
      <Notice tone="needs you" headline="The clock of this computer is set back.">
        It says <span suppressHydrationWarning>{fullDate(clock)}</span>, but the newest record of this bench is of{" "}
        <span suppressHydrationWarning>{fullDate(newest)}</span>. What you take now is kept, behind that record and with
        its date. Set the clock right. If that record is the wrong one, restore a backup from before it.
      </Notice>
    </div>
  );
}
