import type { Session } from "../../../server/trial/trial-view";
import { Ago } from "../../primitives/ago";
import { Button } from "../../primitives/button";

/** The sitting in hand, and the way to another: with another gauge, or on another day. */
export function SessionLine({ session, now, onNew }: { session: Session; now: number; onNew: () => void }) {
  return (
    <p className="flex flex-wrap items-center justify-between gap-2 text-[16px] text-ink2">
      <span>
        {session.gauge.kind === "eye" ? "Sitting" : `${session.gauge.name}, sitting`} begun{" "}
        <Ago at={session.begunAt} now={now} />
      </span>
      <Button weight="small" className="!text-[16px] max-lg:!min-h-11" onClick={onNew}>
        {session.gauge.kind === "eye" ? "Another day" : "Another gauge or day"}
      </Button>
    </p>
  );
}
