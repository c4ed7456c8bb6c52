import type { Metadata, Viewport } from "next";
import { headers } from "next/headers";
import type { ReactNode } from "react";
import { Toaster } from "sonner";
import { benchTrouble } from "../server/keeping/bench-trouble";
import { ClockNote } from "../ui/shell/clock-note";
import { Shell } from "../ui/shell/shell";
import "@fontsource-variable/atkinson-hyperlegible-next/index.css";
import "@fontsource-variable/atkinson-hyperlegible-mono/index.css";
import "./globals.css";
import { preferencesOfBrowser } from "./preferences";

export const metadata: Metadata = {
  title: { default: "Ustrina", template: "%s · Ustrina" },
  description: "Works out laser machine corrections from burned and measured test pieces.",
};

export const viewport: Viewport = { width: "device-width", initialScale: 1 };

export default async function RootLayout({ children }: { children: ReactNode }) {
  // Reading the headers keeps every page dynamic: the nonce of the content policy is new for each request.
  await headers();
  const preferences = await preferencesOfBrowser();
  const { clock } = benchTrouble();
  return (
    <html lang="en" data-theme={preferences.theme}>
      <body>
        <Shell preferences={preferences}>
          {clock && <ClockNote {...clock} />}
          {children}
        </Shell>
        <Toaster
          position="bottom-right"
          offset={72}
          toastOptions={{ className: "!font-sans !text-[15px] !bg-go !text-on-go !border-go" }}
        />
      </body>
    </html>
  );
}
