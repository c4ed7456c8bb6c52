import type { State } from "../../core/course/state";

/** The state of a procedure as a shape; the word stands beside it always. */
export function StateMark({ state, size = 20 }: { state: State; size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 20 20" aria-hidden="true">
      {SHAPES[state]}
    </svg>
  );
}

const ring = (stroke: string, width = 2, fill = "none") => (
  <circle cx="10" cy="10" r="8" fill={fill} stroke={stroke} strokeWidth={width} />
);

const half = (
  <>
    {ring("var(--color-ember)")}
    <path d="M10 2a8 8 0 0 1 0 16z" fill="var(--color-ember)" />
  </>
);

const SHAPES: Record<State, React.ReactNode> = {
  "not done": ring("var(--color-border)", 1.3),
  open: half,
  "to prove": half,
  holding: (
    <>
      {ring("var(--color-verdigris)", 2, "var(--color-verdigris)")}
      <path
        d="M6.2 10.3l2.6 2.6 5-5.6"
        fill="none"
        stroke="var(--color-sheet)"
        strokeWidth="2"
        strokeLinecap="round"
        strokeLinejoin="round"
      />
    </>
  ),
  drifting: (
    <>
      {ring("var(--color-ochre)")}
      <path d="M6 14l8-8" stroke="var(--color-ochre)" strokeWidth="2" strokeLinecap="round" />
    </>
  ),
  stale: (
    <>
      {ring("var(--color-ember)")}
      <path d="M10 5.5v5.5M10 13.8v.4" stroke="var(--color-ember)" strokeWidth="2.2" strokeLinecap="round" />
    </>
  ),
  "check due": (
    <>
      {ring("var(--color-ochre)")}
      <circle cx="10" cy="10" r="2.6" fill="var(--color-ochre)" />
    </>
  ),
};
