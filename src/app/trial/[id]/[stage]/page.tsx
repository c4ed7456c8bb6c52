import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { connection } from "next/server";
import { cache } from "react";
import { database } from "../../../../data/server-database";
import { momentNow } from "../../../../server/keeping/clock";
import { knownProcedure } from "../../../../server/procedures/procedures";
import { Refusal } from "../../../../server/refusal";
import { type TrialView, trialView } from "../../../../server/trial/trial-view";
import { isStage, STAGE_WORDS } from "../../../../ui/trial/shared/stages";
import { TrialBar } from "../../../../ui/trial/trial-bar";
import { TrialScreen } from "../../../../ui/trial/trial-screen";

type Props = {
  params: Promise<{ id: string; stage: string }>;
  searchParams: Promise<{ round?: string; site?: string; gauge?: string }>;
};

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const { id, stage } = await params;
  const view = found(Number(id));
  const title = knownProcedure(view.procedure).title;
  return { title: `${isStage(stage) ? STAGE_WORDS[stage] : ""}: ${title} ${view.code}` };
}

export default async function StagePage({ params, searchParams }: Props) {
  await connection();
  const { id, stage } = await params;
  const { round, site, gauge } = await searchParams;
  if (!isStage(stage)) notFound();
  const view = found(Number(id));
  const n = round ? Number(round) : stage === "prove" ? (view.rounds.at(-1)?.n ?? 1) : 1;
  if (!view.rounds.some((r) => r.n === n)) notFound();
  const { title } = knownProcedure(view.procedure);
  return (
    <div className="flex min-h-dvh flex-col">
      <TrialBar
        machine={{ name: view.machine.name, slug: view.machineSlug }}
        procedure={{ id: view.procedure, title }}
        code={view.code}
      />
      <TrialScreen view={view} stage={stage} n={n} site={site ?? null} gauge={gauge ?? null} now={momentNow()} />
    </div>
  );
}

/** Once for a page and its title. */
const found = cache((id: number): TrialView => {
  try {
    return trialView(database(), id, momentNow());
  } catch (error) {
    if (error instanceof Refusal) notFound();
    throw error;
  }
});
