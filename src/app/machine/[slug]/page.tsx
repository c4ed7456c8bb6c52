import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { connection } from "next/server";
import { database } from "../../../data/server-database";
import { momentNow } from "../../../server/keeping/clock";
import { machineFormView, machineName, machineView } from "../../../server/screens/machine-view";
import { MachineScreen } from "../../../ui/machine/machine-screen";
import { preferencesOfBrowser } from "../../preferences";

type Props = { params: Promise<{ slug: string }> };

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  await connection();
  const { slug } = await params;
  return { title: machineName(database(), slug) ?? "Not found" };
}

export default async function MachinePage({ params }: Props) {
  await connection();
  const { slug } = await params;
  const now = momentNow();
  const machine = machineView(database(), slug, now, (await preferencesOfBrowser()).unit);
  if (!machine) notFound();
  return <MachineScreen machine={machine} form={machineFormView()} now={now} />;
}
