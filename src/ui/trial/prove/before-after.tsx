"use client";
import { useState } from "react";
import type { RoundView, TrialView } from "../../../server/trial/trial-view";
import { DetailCard } from "../../drawing/detail-view";
import { PickBox } from "../../primitives/pick-box";
import { historyOf, procedureOf } from "../shared/known-procedure";

/** The same site before and after, drawn at one scale from what was read. */
export function BeforeAfter({ view, proof }: { view: TrialView; proof: RoundView }) {
  const procedure = procedureOf(view);
  const sites = proof.spec?.sites ?? [];
  const [siteId, setSiteId] = useState((sites.findLast((s) => s.place) ?? sites.at(-1))?.id ?? "");
  const before = procedure.detail(historyOf(view, proof.n - 1), { site: siteId, typed: null });
  const after = procedure.detail(historyOf(view, proof.n), { site: siteId, typed: null });
  if (!before || !after) return null;
  return (
    <section className="card p-4" aria-label="Before and after">
      <div className="flex items-center justify-between gap-3">
        <h2 className="font-semibold">Before and after</h2>
        <PickBox
          label="Point shown before and after"
          value={siteId}
          choices={sites.map((s) => ({ value: s.id, label: s.label }))}
          onChange={setSiteId}
        />
      </div>
      <div className="mt-3 grid gap-3">
        {[
          { title: "before", detail: before },
          { title: "after", detail: after },
        ].map(({ title, detail }) => (
          <div key={title} className="overflow-hidden rounded-md border border-hair">
            <DetailCard detail={detail} height={200} title={title} />
          </div>
        ))}
      </div>
    </section>
  );
}
