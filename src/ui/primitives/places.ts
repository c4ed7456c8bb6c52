/** The places every page leads to, in their order. */
export const PLACES = [
  { label: "Bench", href: "/" },
  { label: "Stock", href: "/stock" },
  { label: "Ledger", href: "/ledger" },
  { label: "Gauges", href: "/gauges" },
  { label: "Practice machines", href: "/practice" },
  { label: "Backup", href: "/backup" },
] as const;
