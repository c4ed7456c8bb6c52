import clsx from "clsx";
import { FileDown } from "lucide-react";
import { PAPERS, type Paper, type SheetPage } from "../../formats/run-sheet/sheet-page";
import { buttonClass } from "../primitives/button";
import { Link } from "../primitives/link";
import { PrintButton } from "./print-button";
import { SheetPageView } from "./sheet-page-view";

type Props = {
  title: string;
  pages: readonly SheetPage[];
  paper: Paper;
  /** Of this page with a paper. */
  href: (paper: Paper) => string;
  pdfHref: string;
  backHref: string;
};

/** The run sheet as it will lie on the machine: printed from here, or taken as PDF. */
export function RunSheetScreen({ title, pages, paper, href, pdfHref, backHref }: Props) {
  return (
    <>
      <div className="no-print mx-auto grid w-full max-w-[1680px] gap-2 px-6 py-4 max-sm:px-4">
        <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
          <h1 className="text-[20px] font-bold">Run sheet</h1>
          <p className="text-ink2">
            {title}, {pages.length} pages
          </p>
          <Papers paper={paper} href={href} />
          <span className="ml-auto flex flex-wrap gap-2">
            <Link href={backHref} className={buttonClass("plain")}>
              Back to Burn
            </Link>
            <a href={pdfHref} download className={buttonClass("plain")}>
              <FileDown size={17} aria-hidden="true" /> PDF
            </a>
            <PrintButton />
          </span>
        </div>
        <p className="text-[14px] text-ink2">
          Print at 100 %, without fitting to the page. Then measure the line of 100 mm below the drawing: it tells
          whether the printer kept the scale.
        </p>
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
