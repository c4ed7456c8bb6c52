/** Practice machines as the page receives them: the truth only where it was asked for. */

import type { MachineKind } from "../../core/procedures/machine-spec";
import type { Db } from "../../data/database";
import { allMachines } from "../../data/machines";
import { practiceOf } from "../../data/practice";
import type { GantryTruth, PracticeController } from "../../practice/gantry-truth";
import { controllerOf, truthOf } from "./practice-machine";

export type PracticeMachineView = {
  slug: string;
  name: string;
  kind: MachineKind;
  controller: PracticeController;
  truth: GantryTruth | null;
};

export function practiceView(db: Db): PracticeMachineView[] {
  return allMachines(db).flatMap((m) => {
    const row = practiceOf(db, m.id);
    if (!row) return [];
    return [
      {
        slug: m.slug,
        name: m.spec.name,
        kind: m.spec.kind,
        controller: controllerOf(row),
        truth: row.revealedAt === null ? null : truthOf(row),
      },
    ];
  });
}
