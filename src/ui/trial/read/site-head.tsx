import type { Site } from "../../../core/coupon/site";

/** Which site, how many readings it has, and the question. */
export function SiteHead({ site, index, total, taken }: { site: Site; index: number; total: number; taken: number }) {
  const turn = site.openEnded
    ? `${taken} taken`
    : `${taken + 1}${taken < site.repeats ? ` of ${site.repeats}` : ", one more"}`;
  return (
    <div className="mb-3 max-lg:mb-2">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 className="text-[19px] font-bold">{site.label}</h2>
        <p className="text-[16px] text-ink2">
          <span className="max-sm:hidden">site </span>
          {index + 1} of {total} ·{!site.openEnded && <span className="max-sm:hidden"> reading</span>} {turn}
        </p>
      </div>
      <p className="text-[16px] text-ink2">{site.question}</p>
    </div>
  );
}
