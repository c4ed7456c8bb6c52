import clsx from "clsx";
import type { ButtonHTMLAttributes } from "react";

type Weight = "primary" | "plain" | "small" | "quiet";

const WEIGHTS: Record<Weight, string> = {
  primary:
    "goes-on bg-go text-on-go border border-go px-4 min-h-11 font-semibold hover:bg-go-over active:translate-y-px",
  plain: "bg-sheet text-ink border border-border px-4 min-h-11 font-semibold hover:bg-paper active:translate-y-px",
  small:
    "bg-sheet text-ink border border-border px-3 min-h-8 max-sm:min-h-11 text-[14px] hover:bg-paper active:translate-y-px",
  quiet:
    "text-ink2 underline decoration-line underline-offset-4 px-1 min-h-8 max-sm:min-h-11 text-[14px] hover:text-ink",
};

/** Classes of a button, for links that look like one. */
export function buttonClass(weight: Weight = "plain", extra = ""): string {
  return clsx(
    "inline-flex items-center whitespace-nowrap justify-center gap-2 rounded-md disabled:opacity-60 disabled:cursor-not-allowed",
    WEIGHTS[weight],
    extra,
  );
}

export function Button({
  weight = "plain",
  className,
  type = "button",
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { weight?: Weight }) {
  return <button type={type} className={buttonClass(weight, className)} {...rest} />;
}
