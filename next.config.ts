import type { NextConfig } from "next";

const config: NextConfig = {
  poweredByHeader: false,
  reactStrictMode: true,
  // They read files of their own, and sharp is native.
  serverExternalPackages: ["pdfkit", "sharp"],
  experimental: { serverActions: { bodySizeLimit: "24mb" } },
};

export default config;
