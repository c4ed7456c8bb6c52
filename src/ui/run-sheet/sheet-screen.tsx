import clsx from "clsx";
import { FileDown } from "lucide-react";
import { countText } from "../../core/metrology/count-text";
import { PAPERS, type Paper, type SheetPage } from "../../formats/paper/sheet-page";
import { buttonClass } from "../primitives/button";
import { Link } from "../primitives/link";
import { PrintButton } from "./print-button";
import { SheetPageView } from "./sheet-page-view";

type Props = {
  /** What lies on the pages. */
  heading: string;
  title: string;
  pages: readonly SheetPage[];
  paper: Paper;
  /** Of this page with a paper. */
  href: (paper: Paper) => string;
  pdfHref: string;
  back: { href: string; label: string };
  note: string;
};

/** Pages as they will be on paper: printed from here, or downloaded as PDF. */
export function SheetScreen({ heading, title, pages, paper, href, pdfHref, back, note }: Props) {
  return (
    <>
      <div className="no-print mx-auto grid w-full max-w-[1680px] gap-2 px-6 py-4 max-sm:px-4">
        <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
          <h1 className="text-[20px] font-bold">{heading}</h1>
          <p className="text-ink2">
            {title}, {countText(pages.length, "page")}
          </p>
          <Papers paper={paper} href={href} />
          <span className="ml-auto flex flex-wrap gap-2">
            <Link href={back.href} className={buttonClass("plain")}>
              {back.label}
            </Link>
            <a href={pdfHref} download className={buttonClass("plain")}>
              <FileDown size={17} aria-hidden="true" /> PDF
            </a>
            <PrintButton />
          </span>
        </div>
        <p className="text-[14px] text-ink2">{note}</p>
      </div>
      <main className="sheet-pages">
        {pages.map((page, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a page is its place
          <SheetPageView key={i} page={page} n={i + 1} />
        ))}
      </main>
      {/* The paper of the printer, without margins of the browser: the pages have their own. */}
      <style>{pageRules(paper)}</style>
    </>
  );
}

function pageRules(paper: Paper): string {
  const { widthMm, heightMm } = PAPERS[paper];
  return `@page { size: ${widthMm}mm ${heightMm}mm; margin: 0 } @page wide { size: ${heightMm}mm ${widthMm}mm; margin: 0 }`;
}

function Papers({ paper, href }: Pick<Props, "paper" | "href">) {
  return (
    <nav aria-label="Paper" className="flex overflow-hidden rounded-md border border-border">
      {(Object.keys(PAPERS) as Paper[]).map((key) => (
        <Link
          key={key}
          href={href(key)}
          replace
          aria-current={key === paper ? "true" : undefined}
          className={clsx(
            "flex min-h-11 items-center px-4",
            key === paper ? "bg-ink font-semibold text-sheet" : "bg-sheet hover:bg-paper",
          )}
        >
          {PAPERS[key].label}
        </Link>
      ))}
    </nav>
  );
}
