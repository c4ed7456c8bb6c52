import type { ReactNode } from "react";
import { Button } from "../../../primitives/button";
import { Fault } from "../../../primitives/notice";
import { Question } from "./question";

type Props = {
  fault: string | null;
  question: string | null;
  busy: boolean;
  onCannot: () => void;
  children?: ReactNode;
};

/** The end of every small ask form: its fault, Take, and cannot read. */
export function TakeRow({ fault, question, busy, onCannot, children }: Props) {
  return (
    <div className="mt-3 grid gap-2">
      {fault && <Fault>{fault}</Fault>}
      <Question text={question} />
      <div className="flex gap-2">
        <Button weight="primary" type="submit" disabled={busy}>
          Take
        </Button>
        {children}
        <Button onClick={onCannot} disabled={busy}>
          cannot read
        </Button>
      </div>
    </div>
  );
}
