"use client";
import type { ReactNode } from "react";
import { Button } from "../primitives/button";
import { Fault } from "../primitives/notice";
import { type Beginning, useBegin } from "./use-begin";

type Props = Partial<Beginning> &
  Pick<Beginning, "machine" | "procedure"> & {
    weight: "primary" | "plain" | "small" | "quiet";
    label?: ReactNode;
  };

export function BeginButton({
  machine,
  procedure,
  weight,
  check = false,
  label = check ? "Begin check" : "Begin trial",
  stock = null,
}: Props) {
  const { begin, busy, fault } = useBegin();
  return (
    <span>
      <Button
        weight={weight}
        onClick={() => begin({ machine, procedure, stock, check })}
        disabled={busy}
        className={weight === "quiet" ? "-ml-1" : ""}
      >
        {busy ? "Beginning…" : label}
      </Button>
      {fault && <Fault>{fault}</Fault>}
    </span>
  );
}
