import { buttonClass } from "../ui/primitives/button";
import { Link } from "../ui/primitives/link";
import { TopBar } from "../ui/shell/top-bar";

export default function NotFound() {
  return (
    <>
      <TopBar crumbs={[{ label: "Bench", href: "/" }, { label: "Not found" }]} />
      <main className="mx-auto max-w-xl px-6 py-16">
        <h1 className="text-2xl font-bold">There is nothing at this address.</h1>
        <p className="mt-2 text-ink2">
          The trial or machine may belong to another database. The bench lists what there is.
        </p>
        <Link href="/" className={buttonClass("primary", "mt-6")}>
          To the bench
        </Link>
      </main>
    </>
  );
}
