import type { Fact } from "./part-facts";

/** What follows from the part, large enough to read at the machine, each with its sum. */
export function FactsCard({ facts }: { facts: readonly Fact[] }) {
  return (
    <section className="card p-5" aria-label="What follows" aria-live="polite">
      {facts.length === 0 ? (
        <p className="text-ink2">Give the sizes of the part: what follows from them comes here.</p>
      ) : (
        <dl className="grid gap-x-6 gap-y-3 sm:grid-cols-2 xl:grid-cols-3">
          {facts.map(({ label, value, sum }) => (
            <div key={label}>
              <dt className="text-ink2">{label}</dt>
              <dd className="num text-[21px] leading-tight">{value}</dd>
              <dd className="text-[14px] text-ink3">{sum}</dd>
            </div>
          ))}
        </dl>
      )}
    </section>
  );
}
