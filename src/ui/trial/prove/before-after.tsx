"use client";
import { useState } from "react";
import type { RoundView, TrialView } from "../../../server/trial/trial-view";
import { DetailCard } from "../../drawing/detail-view";
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
      <label className="flex items-center justify-between gap-3 font-semibold">
        Before and after
        <select className="field !min-h-9 font-normal" value={siteId} onChange={(e) => setSiteId(e.target.value)}>
          {sites.map((s) => (
            <option key={s.id} value={s.id}>
              {s.label}
            </option>
          ))}
        </select>
      </label>
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
