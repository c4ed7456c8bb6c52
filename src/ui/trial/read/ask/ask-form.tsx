"use client";
import type { Ref } from "react";
import type { AskHandle, AskProps } from "./ask-props";
import { CellsAsk } from "./cells-ask";
import { ComparisonAsk } from "./comparison-ask";
import { CountAsk } from "./count-ask";
import { OptionAsk } from "./option-ask";
import { PlaceAsk } from "./place-ask";
import { QuantityAsk } from "./quantity-ask";
import { ScoresAsk } from "./scores-ask";
import { SeveralAsk } from "./several-ask";

/** The one form for every kind of ask. */
export function AskForm({ handle, ...props }: AskProps & { handle: Ref<AskHandle> }) {
  switch (props.site.ask.kind) {
    case "quantity":
      return <QuantityAsk {...props} handle={handle} />;
    case "count":
      return <CountAsk {...props} />;
    case "ordinal":
      return <OptionAsk {...props} />;
    case "choice": {
      const placed = props.site.ask.options.flatMap(({ id, label, at }) => (at ? [{ id, label, at }] : []));
      return placed.length > 0 ? <PlaceAsk {...props} options={placed} /> : <OptionAsk {...props} />;
    }
    case "cells":
      return <CellsAsk {...props} />;
    case "comparison":
      return <ComparisonAsk {...props} />;
    case "scores":
      return <ScoresAsk {...props} />;
    case "pair":
    case "points":
    case "vector":
      return <SeveralAsk {...props} />;
  }
}
