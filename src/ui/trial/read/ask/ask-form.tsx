"use client";
import type { Ref } from "react";
import type { AskHandle, AskProps } from "./ask-props";
import { CellsAsk } from "./cells-ask";
import { CountAsk } from "./count-ask";
import { OptionAsk } from "./option-ask";
import { QuantityAsk } from "./quantity-ask";
import { SeveralAsk } from "./several-ask";

/** The one form for every kind of ask. */
export function AskForm({ handle, ...props }: AskProps & { handle: Ref<AskHandle> }) {
  switch (props.site.ask.kind) {
    case "quantity":
      return <QuantityAsk {...props} handle={handle} />;
    case "count":
      return <CountAsk {...props} />;
    case "ordinal":
    case "choice":
      return <OptionAsk {...props} />;
    case "cells":
      return <CellsAsk {...props} />;
    case "pair":
    case "points":
    case "vector":
      return <SeveralAsk {...props} />;
  }
}
