"use client";
import { Printer } from "lucide-react";
import { Button } from "../primitives/button";

export function PrintButton({ weight = "primary" }: { weight?: "primary" | "small" }) {
  return (
    <Button weight={weight} onClick={() => window.print()}>
      <Printer size={17} aria-hidden="true" /> Print
    </Button>
  );
}
