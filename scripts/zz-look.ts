import { chromium } from "@playwright/test";
// usage: look.ts out url [w h] [theme]
const [out, url, w = "1280", h = "800", dark = ""] = process.argv.slice(2);
(async () => {
  const b = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox", "--disable-gpu"] });
  const c = await b.newContext({ viewport: { width: +w, height: +h }, ...(dark ? { colorScheme: "dark" as const } : {}) });
  const p = await c.newPage();
  p.on("console", (m) => m.type() === "error" && console.log(m.text().slice(0, 200)));
  p.on("pageerror", (m) => console.log(String(m).slice(0, 200)));
  await p.goto("http://127.0.0.1:4899" + url);
  await p.waitForTimeout(1200);
  await p.screenshot({ path: out, fullPage: process.env.FULL === "1" });
  await b.close();
})();
