/**
 * What a point answers as a rule, before anything is burned: for forecasts of what is judged by eye or by hand, or noted at the machine. Marks
 * lie in the middle half of what is burned, the best of them in the middle. (common practice, no source)
 */
import type { Site } from "../coupon/site";
import type { AnswerValue } from "../trial/answer";

/** Where a mark begins, is best and ends, as shares of what is burned. */
const SHARES = { first: 0.25, sharpest: 0.5, last: 0.75 } as const;
const ON_STRIP = { "start of good": SHARES.first, best: SHARES.sharpest, "end of good": SHARES.last } as const;
/** So many neighbours in order are judged alike. */
const ALIKE = 1.5;

/** @returns `null` where nothing is usual */
export function usualAnswer(site: Site, sites: readonly Site[]): AnswerValue | null {
  const { ask } = site;
  switch (ask.kind) {
    case "cells": {
      const at = (share: number) => ask.cells[Math.round(share * (ask.cells.length - 1))]?.id ?? "";
      const cells = ask.mode === "range" ? [at(SHARES.first), at(SHARES.last)] : [at(SHARES.sharpest)];
      return { kind: "cells", cells };
    }
    case "ordinal": {
      const judged = sites.filter((s) => s.ask.kind === "ordinal");
      const fromMiddle = judged.indexOf(site) - (judged.length - 1) / 2;
      const last = ask.categories.length - 1;
      const rank = Math.min(last, Math.max(0, Math.round(last / 2) + Math.round(fromMiddle / ALIKE)));
      return { kind: "ordinal", category: ask.categories[rank] ?? "" };
    }
    case "quantity": {
      const value = usualSize(site);
      return value === null ? null : { kind: "quantity", value };
    }
    default:
      return null;
  }
}

function usualSize({ measurand }: Site): number | null {
  switch (measurand.kind) {
    case "known length":
      return measurand.mm;
    case "readout":
      return measurand.of.kind === "spot" ? measurand.of.near[measurand.along] : null;
    case "place on ramp": {
      const { within, along, which } = measurand;
      const x = within.x0 + SHARES[which] * (within.x1 - within.x0);
      return along.at0 + along.perMm * (x - along.fromXMm);
    }
    case "place on strip": {
      const { within, along, which, weak } = measurand;
      const length = along === "x" ? within.x1 - within.x0 : within.y1 - within.y0;
      const share = ON_STRIP[which];
      return length * (weak === "start" ? share : 1 - share);
    }
    default:
      return null;
  }
}
