import { describe, expect, it } from "vitest";
import type { Place } from "../../server/screens/places-view";
import { findPlaces } from "./find-places";

const place = (group: Place["group"], label: string, detail = ""): Place => ({
  group,
  label,
  detail,
  href: `/${label}`,
});
const PLACES = [
  place("Machines", "Alder", "CO2 gantry"),
  place("Machines", "Ölmühle №3", "galvo"),
  place("Procedures", "Scan offset on Alder", "Rows burned both ways end in line"),
  place("Trials", "A-14 Scan offset", "Alder, proved"),
  place("Trials", "A-1 Scan offset", "Alder, open"),
];
const found = (typed: string) => findPlaces(PLACES, typed).map((p) => p.label);

describe("finding places", () => {
  it("shows what there is before anything is typed, without the long list of trials", () => {
    expect(found(" ")).toEqual(["Alder", "Ölmühle №3", "Scan offset on Alder"]);
  });

  it("needs every word, and puts what begins with them first", () => {
    expect(found("alder")).toEqual(["Alder", "Scan offset on Alder", "A-14 Scan offset", "A-1 Scan offset"]);
    expect(found("scan  A-1")).toEqual(["A-14 Scan offset", "A-1 Scan offset"]);
    expect(found("alder open")).toEqual(["A-1 Scan offset"]);
    expect(found("nothing like it")).toEqual([]);
  });

  it("finds letters with marks without them", () => {
    expect(found("olmuhle")).toEqual(["Ölmühle №3"]);
  });

  it("shows no more than can be looked through", () => {
    const many = Array.from({ length: 500 }, (_, i) => place("Trials", `A-${i}`));
    expect(findPlaces(many, "a")).toHaveLength(30);
  });
});
