import { TopBar } from "../shell/top-bar";

type Props = {
  machine: { name: string; slug: string };
  procedure: { id: string; title: string };
  code: string;
  /** Where the coupon's own page is, on a page that lies below it, and what that one is called. */
  below?: { href: string; label: string };
};

/** The line at the top of everything that belongs to a trial. */
export function TrialBar({ machine, procedure, code, below }: Props) {
  const coupon = `coupon ${code}`;
  return (
    <TopBar
      crumbs={[
        { label: "Bench", href: "/" },
        {
          label: `${machine.name}, ${procedure.title.toLowerCase()}`,
          href: `/machine/${machine.slug}/${procedure.id}`,
        },
        ...(below ? [{ label: coupon, href: below.href }, { label: below.label }] : [{ label: coupon }]),
      ]}
    />
  );
}
