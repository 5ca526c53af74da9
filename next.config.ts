import type { NextConfig } from "next";
import { engineVersion } from "./scripts/engineVersion.mjs";

const policy = (evaluates: boolean) =>
  [
    "default-src 'self'",
    // Next writes its own inline start-up script; wasm needs its own word.
    `script-src 'self' 'unsafe-inline' 'wasm-unsafe-eval'${evaluates || process.env.NODE_ENV === "development" ? " 'unsafe-eval'" : ""}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self' data:",
    "worker-src 'self' blob:",
    "connect-src 'self' ws://127.0.0.1:* ws://localhost:*",
    "frame-ancestors 'none'",
    "base-uri 'self'",
    "form-action 'self'",
    "object-src 'none'",
  ].join("; ");

const config: NextConfig = {
  serverExternalPackages: ["@electric-sql/pglite", "replicad-opencascadejs", "pdfmake", "fs-native-extensions"],
  // The proxy keeps a body while it looks at it and cuts it off there: more than the largest that any door takes.
  experimental: { proxyClientMaxBodySize: "88mb" },
  // What was computed by another engine is not shown again.
  env: { ENGINE_VERSION: engineVersion() },
  // Served on this computer or within the shop: packing 22 MB of kernel for every page costs more than it saves.
  compress: false,
  devIndicators: false,
  // Types are checked by `npm test`, of everything and once.
  typescript: { ignoreBuildErrors: true },
  poweredByHeader: false,
  allowedDevOrigins: ["127.0.0.1", "localhost"],
  headers: async () => {
    const common = [
      { key: "x-content-type-options", value: "nosniff" },
      { key: "referrer-policy", value: "same-origin" },
    ];
    return [
      { source: "/:path*", headers: [{ key: "content-security-policy", value: policy(false) }, ...common] },
      // The solid kernel's glue makes its call wrappers with Function(): allowed to the worker's own script, which
      // takes the policy it is served with, and to no page.
      { source: "/_next/static/:path*", headers: [{ key: "content-security-policy", value: policy(true) }, ...common] },
    ];
  },
};
export default config;
