"use client";
import { Image as ImageIcon, ScanLine } from "lucide-react";
import type { Site } from "../../../core/coupon/site";
import { buttonClass } from "../../primitives/button";
import { Link } from "../../primitives/link";

type Props = { trialId: number; n: number; sites: readonly Site[]; onPractice: boolean };

/** Reading from a picture instead of by hand, where the sites can be read so. */
export function PictureCard({ trialId, n, sites, onPractice }: Props) {
  const readable = sites.filter((s) => isReadInPictures(s)).length;
  if (readable === 0) return null;
  const isArray = sites.some((s) => s.measurand.kind === "cell look" || s.measurand.kind === "cell colour");
  const dots = sites.filter((s) => s.measurand.kind === "dots");
  return (
    <section className="card flex flex-wrap items-center gap-x-4 gap-y-2 px-5 py-3" aria-label="From a picture">
      <Link
        href={`/trial/${trialId}/picture${n > 1 ? `?round=${n}` : ""}`}
        className={buttonClass("small", "!text-[16px]")}
      >
        <ImageIcon size={16} aria-hidden="true" /> Read from a picture
      </Link>
      {onPractice && dots.length === 0 && (
        <a
          className={buttonClass("quiet", "!text-[16px]")}
          href={`/api/trials/${trialId}/rounds/${n}/practice-scan.png?dpi=${isArray ? 300 : 1200}`}
          download
        >
          <ScanLine size={16} aria-hidden="true" /> Scan of the practice piece
        </a>
      )}
      {onPractice &&
        dots.map((site, i) => (
          <a
            key={site.id}
            className={buttonClass("quiet", "!text-[16px]")}
            href={`/api/trials/${trialId}/rounds/${n}/practice-scan.png?dpi=600&of=${site.id.replaceAll(" ", "-")}`}
            download={`practice-scan-${i + 1}.png`}
          >
            <ScanLine size={16} aria-hidden="true" />
            {dots.length === 1 ? "Scan of the practice coupon" : `Practice scan ${i + 1}`}
          </a>
        ))}
    </section>
  );
}

function isReadInPictures({ measurand }: Site): boolean {
  if (measurand.kind === "dots" || measurand.kind === "cell look" || measurand.kind === "cell colour") return true;
  if (measurand.kind === "width") return measurand.of.kind === "line" && !measurand.of.along;
  return measurand.kind === "distance" && measurand.along === "x" && measurand.from.kind === "row ends";
}
