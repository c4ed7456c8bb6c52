import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { connection } from "next/server";
import { database } from "../../../data/database";
import { machineFormView, machineView } from "../../../server/machine-view";
import { MachineScreen } from "../../../ui/machine/machine-screen";

type Props = { params: Promise<{ slug: string }> };

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  await connection();
  const { slug } = await params;
  return { title: machineView(database(), slug, Date.now())?.spec.name ?? "Not found" };
}

export default async function MachinePage({ params }: Props) {
  await connection();
  const { slug } = await params;
  const now = Date.now();
  const machine = machineView(database(), slug, now);
  if (!machine) notFound();
  return <MachineScreen machine={machine} form={machineFormView()} now={now} />;
}
