import { defineConfig } from "@playwright/test";
import { serverOf, WORKERS } from "./e2e/servers";

/** The real interface in Debian's Chromium. */
export default defineConfig({
  testDir: "e2e",
  workers: WORKERS,
  fullyParallel: true,
  timeout: 150_000,
  // A browser on a busy machine may stumble; what passes only the second time is listed as flaky, and still looked into.
  retries: 1,
  reporter: [["list"]],
  forbidOnly: Boolean(process.env.CI),
  expect: { timeout: 40_000 },
  use: {
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
    permissions: ["clipboard-read", "clipboard-write"],
    launchOptions: {
      executablePath: "/usr/bin/chromium-headless-shell",
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
  webServer: Array.from({ length: WORKERS }, (_, i) => serverOf(i)).map(({ port, url, data }) => ({
    command: "node scripts/start.mjs",
    url: `${url}/`,
    env: { ...(process.env as Record<string, string>), PORT: String(port), SGORBIA_DATA: data },
    timeout: 240_000,
    reuseExistingServer: false,
    gracefulShutdown: { signal: "SIGTERM", timeout: 8000 },
  })),
});
