export function Kbd({ children }: { children: string }) {
  return <kbd className="num rounded border border-border bg-sheet px-1.5 py-px text-[14px] text-ink2">{children}</kbd>;
}
