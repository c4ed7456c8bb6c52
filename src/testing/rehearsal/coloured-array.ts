/**
 * Arrays of steel, scored by colour: the oxide grows with the energy, its thickness differs by 3 % (SD) from cell to cell; a scan shows L*, a* and b* with
 * 0.5 (SD) each. The wanted colour is that of a thickness drawn between 25 and 110 nm.
 */
import { colourDifference } from "../../core/colour/difference";
import { type Lab, labOfLinear, linearOf } from "../../core/colour/lab";
import { elementAt } from "../../core/fitting/element-at";
import type { ScoredCell } from "../../core/marking/array-given";
import { oxideColour } from "../../practice/oxide-colour";
import { seeded, seedOf } from "../../practice/random";
import { answered } from "./first-array";

const THICKNESS_SD = 0.03;
const SCAN_SD = 0.5;
/** ln of the range of one setting, half of it. */
const HALF = Math.log(6) / 2;

function oxideLab(nm: number): Lab {
  const [red, green, blue] = oxideColour(nm).map(linearOf);
  return labOfLinear([red ?? 0, green ?? 0, blue ?? 0]);
}

/** @returns by how much the chosen cell is farther from the wanted colour than the nearest burned cell, ΔE, and its stated bound */
export function colourTrial(seed: number, side: number): { beyond: number; most: number } {
  const random = seeded(seedOf("array by colour", seed));
  const middle = random.between(35, 70);
  const power = random.between(0.4, 0.8);
  const wanted = oxideLab(random.between(25, 110));
  const at = (i: number) => -1 + (2 * i) / (side - 1);
  const places = Array.from({ length: side * side }, (_, i) => ({ x: at(i % side), y: at(Math.floor(i / side)) }));
  const thickness = (p: { x: number; y: number }) => middle * Math.exp(power * HALF * (p.y - p.x));
  const of = places.map((p): Lab => {
    const { l, a, b } = oxideLab(thickness(p) * (1 + THICKNESS_SD * random.normal()));
    const seen = () => SCAN_SD * random.normal();
    return { l: l + seen(), a: a + seen(), b: b + seen() };
  });
  const cells = places.map(
    (p, i): ScoredCell => ({
      ...p,
      place: { x: i % side, y: Math.floor(i / side) },
      burn: 0,
      score: -colourDifference(elementAt(of, i), wanted),
    }),
  );
  const step = { x: 2 / (side - 1), y: 2 / (side - 1) };
  const answer = answered({ cells, step, blank: 0, colours: { wanted, of } });
  const off = places.map((p) => colourDifference(oxideLab(thickness(p)), wanted));
  // The nearest colour within reach, not only among the burned cells.
  const fine = Array.from({ length: 2001 }, (_, i) => middle * Math.exp(power * HALF * (-2 + (4 * i) / 2000)));
  const nearest = Math.min(...fine.map((nm) => colourDifference(oxideLab(nm), wanted)));
  return {
    beyond: elementAt(off, answer.chosen) - nearest,
    most: 100 * elementAt(answer.short, answer.chosen).most,
  };
}
