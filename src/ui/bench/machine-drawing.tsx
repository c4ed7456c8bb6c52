import type { MachineKind } from "../../core/machine/machine-kind";

/** A small drawing of the machine kind: gantries from above, a galvo from the side. Its beam is the one accent. */
export function MachineDrawing({ kind, className }: { kind: MachineKind; className?: string }) {
  return (
    <svg
      viewBox="0 0 72 52"
      aria-hidden="true"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.3"
      strokeLinejoin="round"
      className={className}
    >
      {DRAWINGS[kind]}
    </svg>
  );
}

const BEAM = { stroke: "var(--color-ember)", strokeWidth: 1.6, strokeLinecap: "round" } as const;

const DRAWINGS: Record<MachineKind, React.ReactNode> = {
  // A closed case with a lid, rails at both sides, the beam by way of two mirrors to the head.
  "CO2 gantry": (
    <>
      <rect x="3" y="3" width="66" height="46" rx="3" />
      <path d="M11 9v34M61 9v34M11 24h50" />
      <path d="M7 6.5h9" strokeWidth="3" />
      <path d="M11 9v15h24" {...BEAM} />
      <rect x="31" y="20" width="9" height="8" fill="var(--color-sheet)" />
      <path d="M35.500 28v6" {...BEAM} />
    </>
  ),
  // An open frame on four feet, the module on its beam.
  "diode gantry": (
    <>
      <path d="M10 5v42M62 5v42" strokeWidth="3" />
      <path d="M10 47h52M10 5h52" />
      <path d="M8 23h56M8 26.500h56" />
      <rect x="30" y="18" width="12" height="14" fill="var(--color-sheet)" />
      <path d="M33 21.500h6M33 24.500h6" strokeWidth="1" />
      <path d="M36 32v5" {...BEAM} />
    </>
  ),
  // A column with the head, the lens under it, the field that the beam reaches.
  galvo: (
    <>
      <path d="M8 48h58" />
      <path d="M14 48V5h7v43" />
      <rect x="21" y="6" width="31" height="11" rx="1.5" />
      <path d="M35 17h14l-2.500 5h-9z" />
      <path d="M42 22 31 47M42 22l11 25" {...BEAM} />
      <path d="M31 48h22" {...BEAM} />
    </>
  ),
};
