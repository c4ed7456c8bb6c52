/** The stages of a trial, their order, and which one a round is at. */

import { sitesLeft } from "../../../core/trial/answer";
import { adjusted } from "../../../core/trial/decisions";
import type { RoundView, TrialView } from "../../../server/trial/trial-view";

export const STAGES = ["lay-out", "burn", "read", "correct", "prove"] as const;
export type Stage = (typeof STAGES)[number];

/** What every stage receives. */
export type StageProps = { view: TrialView; n: number; now: number };

export const STAGE_WORDS: Record<Stage, string> = {
  "lay-out": "Lay out",
  burn: "Burn",
  read: "Read",
  correct: "Correct",
  prove: "Prove",
};

export function isStage(text: string): text is Stage {
  return (STAGES as readonly string[]).includes(text);
}

export function stageHref(view: TrialView, stage: Stage, n: number): string {
  return `/trial/${view.id}/${stage}${n > 1 && stage !== "prove" ? `?round=${n}` : ""}`;
}

export function sitesDone(round: RoundView): { done: number; total: number } {
  const answers = round.readings.map((r) => r.answer);
  const sites = round.spec?.sites ?? [];
  return { done: sites.length - sitesLeft(sites, answers).length, total: sites.length };
}

/** Stages that are finished, for the ticks on the rail. */
export function finishedStages(view: TrialView, round: RoundView): Set<Stage> {
  const finished = new Set<Stage>();
  if (!round.spec) return finished;
  finished.add("lay-out").add("burn");
  const { done, total } = sitesDone(round);
  if (done === total) finished.add("read");
  const adjustedOnce = view.rounds.some((r) => adjusted(r.n).of(view.decisions));
  if (adjustedOnce || view.records.some((r) => r.origin === "trial")) finished.add("correct");
  if (view.end === "proved") finished.add("prove");
  return finished;
}
