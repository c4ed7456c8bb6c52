import { notFound, redirect } from "next/navigation";
import { connection } from "next/server";
import { database } from "../../../data/server-database";
import { momentNow } from "../../../server/keeping/clock";
import { Refusal } from "../../../server/refusal";
import { progressOf } from "../../../server/trial/trial-progress";
import { trialView } from "../../../server/trial/trial-view";

/** A trial without a stage: where it stands now. */
export default async function TrialPage({ params }: { params: Promise<{ id: string }> }) {
  await connection();
  const id = Number((await params).id);
  redirect(placeOf(id));
}

function placeOf(id: number): string {
  try {
    const view = trialView(database(), id, momentNow());
    return view.endedAt !== null ? `/trial/${id}/prove` : progressOf(database(), id).href;
  } catch (error) {
    if (error instanceof Refusal) notFound();
    throw error;
  }
}
