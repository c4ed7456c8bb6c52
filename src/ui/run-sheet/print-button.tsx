"use client";
import { Printer } from "lucide-react";
import { Button } from "../primitives/button";

export function PrintButton() {
  return (
    <Button weight="primary" onClick={() => window.print()}>
      <Printer size={17} aria-hidden="true" /> Print
    </Button>
  );
}
