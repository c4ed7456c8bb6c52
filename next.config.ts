import type { NextConfig } from "next";
import { LARGEST_BODY } from "./src/server/guard/turned-away";

const config: NextConfig = {
  poweredByHeader: false,
  reactStrictMode: true,
  // They read files of their own, and sharp is native.
  serverExternalPackages: ["pdfkit", "sharp"],
  images: { unoptimized: true },
  // The proxy holds what is sent: beyond its own limit it would pass on a part as if it were the whole.
  experimental: { serverActions: { bodySizeLimit: LARGEST_BODY }, proxyClientMaxBodySize: LARGEST_BODY },
};

export default config;
