import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { connection } from "next/server";
import { database } from "../../../../data/server-database";
import { momentNow } from "../../../../server/keeping/clock";
import { pictureView } from "../../../../server/pictures/picture-view";
import { knownProcedure } from "../../../../server/procedures/procedures";
import { Refusal } from "../../../../server/refusal";
import { trialView } from "../../../../server/trial/trial-view";
import { PictureScreen } from "../../../../ui/picture/picture-screen";
import { TrialBar } from "../../../../ui/trial/trial-bar";

export const metadata: Metadata = { title: "Read from a picture" };

type Props = { params: Promise<{ id: string }>; searchParams: Promise<{ round?: string }> };

export default async function PicturePage({ params, searchParams }: Props) {
  await connection();
  const { id } = await params;
  const { round } = await searchParams;
  const n = round ? Number(round) : 1;
  const { view, pictures, earlier } = found(Number(id), n);
  const { title } = knownProcedure(view.procedure);
  return (
    <div className="flex min-h-dvh flex-col">
      <TrialBar
        machine={{ name: view.machine.name, slug: view.machineSlug }}
        procedure={{ id: view.procedure, title }}
        code={view.code}
        below={{ href: `/trial/${view.id}/read${n > 1 ? `?round=${n}` : ""}`, label: "picture" }}
      />
      <PictureScreen view={view} n={n} pictures={pictures} earlier={earlier} />
    </div>
  );
}

function found(id: number, n: number) {
  try {
    return { view: trialView(database(), id, momentNow()), ...pictureView(database(), id, n) };
  } catch (error) {
    if (error instanceof Refusal) notFound();
    throw error;
  }
}
