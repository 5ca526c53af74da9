import { defineConfig } from "@playwright/test";
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";

const data = (process.env.SGORBIA_E2E_DATA ??= mkdtempSync(path.join(tmpdir(), "sgorbia-e2e-")));
const port = Number(process.env.SGORBIA_E2E_PORT ?? 4371);

/** The real interface in Debian's Chromium, one worker: two cores carry one engine and one server. */
export default defineConfig({
  testDir: "e2e",
  workers: 1,
  timeout: 150_000,
  // A browser on a busy machine may stumble; what passes only the second time is listed as flaky, and still looked into.
  retries: 1,
  reporter: [["list"]],
  forbidOnly: Boolean(process.env.CI),
  expect: { timeout: 40_000 },
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
    permissions: ["clipboard-read", "clipboard-write"],
    launchOptions: {
      executablePath: "/usr/bin/chromium",
      args: [
        "--no-sandbox",
        "--use-gl=angle",
        "--use-angle=swiftshader",
        "--enable-unsafe-swiftshader",
        // Without a graphics card the page itself is drawn a third faster by the processor; the stage stays WebGL.
        "--disable-gpu-compositing",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
        "--no-first-run",
      ],
    },
  },
  webServer: {
    command: "node scripts/start.mjs",
    url: `http://127.0.0.1:${port}/`,
    env: { ...(process.env as Record<string, string>), PORT: String(port), SGORBIA_DATA: data },
    timeout: 240_000,
    reuseExistingServer: false,
    gracefulShutdown: { signal: "SIGTERM", timeout: 8000 },
  },
});
