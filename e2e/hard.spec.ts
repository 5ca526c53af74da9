import { expect, test } from "./test";
import { spawn, type ChildProcess } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { begunFolder } from "./servers";
import { row, saved, type, volume } from "./helpers";

const port = 4391;

/** A server of its own on its own data folder, so that it can be killed. */
async function serve(data: string): Promise<ChildProcess> {
  const child = spawn(
    process.execPath,
    ["node_modules/next/dist/bin/next", "start", "-H", "127.0.0.1", "-p", String(port)],
    { env: { ...process.env, SGORBIA_DATA: data }, stdio: "ignore" },
  );
  for (let i = 0; i < 120; i++) {
    if (
      await fetch(`http://127.0.0.1:${port}/api/jobs`).then(
        (r) => r.ok,
        () => false,
      )
    )
      return child;
    await new Promise((r) => setTimeout(r, 500));
  }
  throw new Error("the server did not start");
}

test("the server is killed hard: everything typed is there again, also what was typed meanwhile", async ({ page }) => {
  test.setTimeout(180_000);
  const data = begunFolder(mkdtempSync(path.join(tmpdir(), "sgorbia-kill-")));
  let server = await serve(data);
  try {
    await page.goto(`http://127.0.0.1:${port}/`);
    await page.getByLabel("File to import").setInputFiles({
      name: "a.card",
      mimeType: "text/plain",
      buffer: Buffer.from('JOB "Killed"\nUNIT mm\nLEAVE BLOCK 60 X 40 X 20\n'),
    });
    await expect(volume(page)).toHaveText("48.000 cm³");
    await type(page, "CUT FACE DEEP 5");
    await saved(page);
    const url = page.url();
    server.kill("SIGKILL");
    await new Promise((resolve) => server.once("exit", resolve));
    // The server is away: typing goes on, and is kept in the browser.
    await type(page, "CUT ⌀10 THRU");
    await expect(page.getByText("server away, kept here")).toBeVisible();
    await expect(volume(page)).toHaveText(`${((60 * 40 * 15 - Math.PI * 25 * 15) / 1000).toFixed(3)} cm³`);
    const context = page.context();
    await page.close();
    server = await serve(data);
    const again = await context.newPage();
    await again.goto(url);
    await expect(row(again, 2)).toContainText("FACE DEEP 5");
    // What the closed window left is offered, and taken up with one press.
    await expect(again.getByText(/A window that was closed left 1 change/)).toBeVisible();
    await again.getByRole("button", { name: "Take them up" }).click();
    await expect(row(again, 3)).toContainText("⌀10 THRU");
    await saved(again);
    const kept = (await (await fetch(`http://127.0.0.1:${port}/api/jobs/${url.split("/").pop()}`)).json()) as {
      job: { parts: { rows: unknown[] }[] };
    };
    expect(kept.job.parts[0].rows).toHaveLength(3);
  } finally {
    server.kill("SIGTERM");
    await new Promise((resolve) => setTimeout(resolve, 1000));
    rmSync(data, { recursive: true, force: true });
  }
});

test("a foreign site and a foreign host are turned away", async ({ request, baseURL }) => {
  expect((await request.get("/api/jobs", { headers: { host: "evil.example" } })).status()).toBe(403);
  expect(
    (
      await request.post("/api/jobs", {
        headers: { origin: "http://evil.example" },
        data: { name: "x", unit: "in", material: "" },
      })
    ).status(),
  ).toBe(403);
  expect(
    (
      await request.post("/api/jobs", {
        headers: { origin: baseURL! },
        data: { name: "", unit: "furlong", material: "" },
      })
    ).status(),
  ).toBe(400);
  expect((await request.put("/api/jobs/nobody", { headers: { origin: baseURL! }, data: "no json" })).status()).toBe(
    400,
  );
  const page = await request.get("/");
  expect(page.headers()["content-security-policy"]).toContain("default-src 'self'");
});
