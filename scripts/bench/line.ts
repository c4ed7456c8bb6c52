/** A line of the bench: what was promised, what was measured. */
export type Line = { what: string; measured: string; target: string; holds: boolean };

export function below(value: number, target: number, unit: string) {
  return { measured: `${value.toPrecision(3)} ${unit}`, target: `< ${target} ${unit}`, holds: value <= target };
}

export function above(value: number, target: number, unit: string) {
  return {
    measured: `${value.toPrecision(4)} ${unit}`.trim(),
    target: `≥ ${target} ${unit}`.trim(),
    holds: value >= target,
  };
}

export function between(value: number, low: number, high: number, unit: string) {
  return {
    measured: `${value.toPrecision(4)} ${unit}`,
    target: `${low} to ${high} ${unit}`,
    holds: value >= low && value <= high,
  };
}

export function exactly(value: number, target: number) {
  return { measured: String(value), target: `${target}`, holds: value === target };
}
