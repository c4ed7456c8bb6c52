"use client";
import { useEffect, useRef, useState } from "react";
import type { Site } from "../../core/coupon/site";
import type { LengthUnit } from "../../core/metrology/units";
import type { AnswerInput } from "../../core/procedures/answer-input";
import { readOnPractice } from "../../server/actions/trial-actions";
import type { TakenReading, TrialView } from "../../server/trial/trial-view";
import { Button } from "../primitives/button";
import { Fault } from "../primitives/notice";
import type { Taken } from "./use-readings";

type Props = {
  view: TrialView;
  n: number;
  site: Site;
  /** Of the gauge in hand. */
  unit: LengthUnit;
  /** Sites that still need readings. */
  open: Site[];
  readings: readonly TakenReading[];
  onRead: (text: string, positive: boolean) => void;
  onTake: (site: string, input: AnswerInput, from: "practice") => Promise<Taken>;
  onDone: (count: number) => void;
};

/** Reading the practice piece: once into the field, or every site that is left. It can be stopped. */
export function PracticeReader({ view, n, site, unit, open, readings, onRead, onTake, onDone }: Props) {
  const [fault, setFault] = useState("");
  const [left, setLeft] = useState<number | null>(null);
  const stop = useRef(false);

  async function measure(siteId: string): Promise<{ text: string; value: number } | null> {
    const result = await readOnPractice({ trialId: view.id, n, site: siteId }).catch(() => null);
    if (!result?.ok) {
      setFault(result?.message ?? "The server does not answer.");
      return null;
    }
    const { value, text } = result.value;
    return { text, value: value.kind === "quantity" ? value.value : 0 };
  }

  async function once() {
    setFault("");
    const read = await measure(site.id);
    if (read) onRead(read.text, read.value >= 0);
  }

  async function all() {
    stop.current = false;
    setFault("");
    const wanted = open.flatMap((s) =>
      Array.from({ length: Math.max(0, s.repeats - readings.filter((r) => r.site === s.id).length) }, () => s),
    );
    let taken = 0;
    for (const s of wanted) {
      if (stop.current) break;
      setLeft(wanted.length - taken);
      const read = await measure(s.id);
      if (!read) break;
      const result = await onTake(
        s.id,
        { kind: "quantity", text: read.text, words: read.value < 0 ? "negative" : "positive", unit },
        "practice",
      );
      if (!result.ok) {
        setFault(result.message);
        break;
      }
      taken++;
    }
    setLeft(null);
    onDone(taken);
  }

  // Leaving the stage stops the reading: what is worked out elsewhere must not change behind the person's back.
  useEffect(
    () => () => {
      stop.current = true;
    },
    [],
  );

  const latest = useRef(once);
  latest.current = once;
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.altKey && e.code === "KeyM") {
        e.preventDefault();
        latest.current();
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);

  return (
    <div className="mt-3 flex flex-wrap items-center gap-2 border-t border-hair pt-3">
      <span className="text-[16px] text-ink2">Practice piece:</span>
      {left === null ? (
        <>
          <Button weight="small" className="!text-[16px] max-lg:!min-h-11" onClick={once}>
            Set the jaws here
          </Button>
          {open.length > 0 && (
            <Button weight="small" className="!text-[16px] max-lg:!min-h-11" onClick={all}>
              Read all that is left
            </Button>
          )}
        </>
      ) : (
        <>
          <span role="status" className="num text-[16px]">
            {left} readings left
          </span>
          <Button
            weight="small"
            onClick={() => {
              stop.current = true;
            }}
          >
            Stop
          </Button>
        </>
      )}
      {fault && <Fault>{fault}</Fault>}
    </div>
  );
}
