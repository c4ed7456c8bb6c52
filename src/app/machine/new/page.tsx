import type { Metadata } from "next";
import { connection } from "next/server";
import { machineFormView } from "../../../server/screens/machine-view";
import { NewMachineScreen } from "../../../ui/machine/machine-screen";

export const metadata: Metadata = { title: "Add a machine" };

export default async function NewMachinePage() {
  await connection();
  return <NewMachineScreen form={machineFormView()} />;
}
