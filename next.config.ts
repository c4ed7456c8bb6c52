import type { NextConfig } from "next";
import { LARGEST_BODY, LARGEST_OF_ALL } from "./src/server/guard/turned-away";

/** The app as the tests of the screens build it has a procedure of theirs. */
const extra = process.env.USTRINA_MADE_UP === "1" ? "./src/testing/extra-procedures.ts" : undefined;

const config: NextConfig = {
  poweredByHeader: false,
  reactStrictMode: true,
  // They read files of their own, and sharp is native.
  serverExternalPackages: ["pdfkit", "sharp"],
  images: { unoptimized: true },
  ...(extra ? { turbopack: { resolveAlias: { "#extra-procedures": extra } } } : {}),
  // A page's title comes with the page, for every reader, not after it: nothing here is slow enough to stream.
  htmlLimitedBots: /.*/,
  // The proxy holds what is sent: beyond its own limit it would pass on a part as if it were the whole.
  experimental: { serverActions: { bodySizeLimit: LARGEST_BODY }, proxyClientMaxBodySize: LARGEST_OF_ALL },
};

export default config;
