"use client";
import dynamic from "next/dynamic";
import { useEffect, useRef, useState } from "react";
import type { Site } from "../../../core/coupon/site";
import { jawsOnPiece } from "../../../core/measuring/jaws-on-piece";
import { type Sitting, zeroOf } from "../../../core/metrology/sitting";
import { sitesLeft } from "../../../core/trial/answer";
import type { AnswerInput } from "../../../core/trial/answer-input";
import { readOnPractice } from "../../../server/actions/trial-actions";
import type { TakenReading, TrialView } from "../../../server/trial/trial-view";
import { Button } from "../../primitives/button";
import { Fault } from "../../primitives/notice";
import type { Taken } from "./use-readings";

/** Loaded when it is opened. */
const PieceJaws = dynamic(async () => (await import("./piece-jaws")).PieceJaws);

type Props = {
  view: TrialView;
  n: number;
  site: Site;
  sites: readonly Site[];
  readings: readonly TakenReading[];
  /** Without words the chosen words stay. */
  onRead: (text: string, words?: "positive" | "negative" | null) => void;
  sitting: Sitting;
  /** Anything else at the site in hand. */
  onTakeHere: (input: AnswerInput) => void;
  onTake: (site: string, input: AnswerInput, from: "practice") => Promise<Taken>;
  onDone: (count: number) => void;
};

/** What one look is, where no jaws are set. */
const ONCE: Partial<Record<Site["measurand"]["kind"], string>> = {
  marked: "Look at the cells",
  sharpest: "Look at the cells",
  "height of peak": "Sweep once",
  "focus readout": "Find the focus here",
  "place on ramp": "Look along the line",
  "best cells": "Look at the cells",
  passed: "Look at the cells",
  charred: "Look at the cells",
  "better of two": "Look at both cells",
  "place on strip": "Look along the strip",
  "cell look": "Scan the cells",
  "cell colour": "Scan the cells",
  clearance: "Put them together",
};

/** Reading the practice piece: once into the field, or every site that is left. It can be stopped. */
export function PracticeReader({ view, n, site, sites, readings, sitting, onRead, onTakeHere, onTake, onDone }: Props) {
  const [fault, setFault] = useState("");
  const [left, setLeft] = useState<number | null>(null);
  const [isLooking, setLooking] = useState(false);
  const stop = useRef(false);
  const isLeft =
    sitesLeft(
      sites,
      readings.map((r) => r.answer),
    ).length > 0;

  async function look(siteId: string): Promise<AnswerInput | null> {
    const result = await readOnPractice({ trialId: view.id, n, site: siteId }).catch(() => null);
    if (!result?.ok) {
      setFault(result?.message ?? "The server does not answer.");
      return null;
    }
    return result.value.input;
  }

  /** A length goes into the field; anything else is taken as it is. */
  async function once() {
    setFault("");
    const input = await look(site.id);
    if (!input) return;
    if (input.kind === "quantity") onRead(input.text, input.words);
    else onTakeHere(input);
  }

  async function all() {
    stop.current = false;
    setFault("");
    const answers = readings.map((r) => r.answer);
    let count = 0;
    for (let left = sitesLeft(sites, answers); left[0] && !stop.current; left = sitesLeft(sites, answers)) {
      const [next] = left;
      setLeft(left.reduce((sum, s) => sum + s.repeats - answers.filter((a) => a.site === s.id).length, 0));
      const input = await look(next.id);
      const result = input && (await onTake(next.id, input, "practice"));
      if (result?.ok === false) setFault(result.message);
      if (!result?.ok) break;
      answers.push(result.reading.answer);
      count++;
    }
    setLeft(null);
    onDone(count);
  }

  // Leaving the stage stops the reading: what is worked out elsewhere must not change behind the person's back.
  useEffect(
    () => () => {
      stop.current = true;
    },
    [],
  );

  useOnceKey(once);

  const hasJaws = site.ask.kind === "quantity" && jawsOnPiece(site) !== null;
  return (
    <div className="mt-3 border-t border-hair pt-3">
      <div className="flex flex-wrap items-center gap-2">
        <span className="text-[16px] text-ink2">Practice piece:</span>
        {left === null ? (
          <>
            <Button weight="small" className="!text-[16px] max-lg:!min-h-11" onClick={once}>
              {ONCE[site.measurand.kind] ?? "Set the jaws here"}
            </Button>
            {isLeft && (
              <Button weight="small" className="!text-[16px] max-lg:!min-h-11" onClick={all}>
                Read all that is left
              </Button>
            )}
            {hasJaws && (
              <Button
                weight="small"
                className="!text-[16px] max-lg:!min-h-11"
                aria-expanded={isLooking}
                onClick={() => setLooking(!isLooking)}
              >
                Set the jaws yourself
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
      </div>
      {fault && <Fault>{fault}</Fault>}
      {isLooking && <OwnJaws view={view} n={n} site={site} sitting={sitting} onRead={onRead} />}
    </div>
  );
}

type OwnProps = Pick<Props, "view" | "n" | "site" | "sitting" | "onRead">;

/** The practice coupon with jaws to set, if this reading is taken with jaws. */
function OwnJaws({ view, n, site, sitting, onRead }: OwnProps) {
  const jaws = jawsOnPiece(site);
  if (!jaws || site.ask.kind !== "quantity") return null;
  return (
    <PieceJaws
      key={site.id}
      look={`/api/trials/${view.id}/rounds/${n}/practice-look.png`}
      jaws={jaws}
      gauge={sitting.gauge}
      zeroMm={zeroOf(sitting, site.ask.jaws) ?? 0}
      onRead={onRead}
    />
  );
}

/** Alt M reads once. */
function useOnceKey(once: () => void): void {
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
}
