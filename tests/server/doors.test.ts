import { NextRequest } from "next/server";
import { z } from "zod";
import { answer, limitedBody, readBody } from "@/server/http";
import { proxy } from "../../proxy";

const post = (body: string, headers: Record<string, string> = {}) =>
  new Request("http://127.0.0.1/api", { method: "POST", body, headers });

describe("every door", () => {
  it("takes what its schema says and names what it does not", async () => {
    const schema = z.strictObject({ name: z.string().min(1), count: z.number() });
    expect(await readBody(post('{"name":"x","count":2}'), schema)).toEqual({
      ok: true,
      value: { name: "x", count: 2 },
    });
    const bad = await readBody(post('{"name":"","count":"two"}'), schema);
    if (bad.ok) throw new Error();
    expect(bad.response.status).toBe(400);
    const { problems } = (await bad.response.json()) as { problems: { path: string }[] };
    expect(problems.map((p) => p.path)).toEqual(["name", "count"]);
    const none = await readBody(post("no json"), schema);
    expect(none.ok).toBe(false);
  });

  it("stops reading at its limit, whatever the header says", async () => {
    expect(await limitedBody(post("x".repeat(100)), 99)).toBeNull();
    expect(await limitedBody(post("x".repeat(99)), 99)).toHaveLength(99);
    expect(await limitedBody(post("x", { "content-length": "100000" }), 99)).toBeNull();
    expect(await limitedBody(new Request("http://127.0.0.1/"), 99)).toHaveLength(0);
  });

  it("turns a surprise into a plain sentence", async () => {
    const error = console.error;
    console.error = () => {};
    const r = await answer(async () => {
      throw new Error("secret path /somewhere");
    });
    console.error = error;
    expect(r.status).toBe(500);
    expect(JSON.stringify(await r.json())).not.toContain("secret");
  });
});

describe("the guard at the gate", () => {
  const ask = (headers: Record<string, string>, method = "GET") =>
    proxy(new NextRequest("http://127.0.0.1:4310/api/jobs", { method, headers })).status;

  it("lets this computer's own pages through", () => {
    expect(ask({ host: "127.0.0.1:4310" })).toBe(200);
    expect(ask({ host: "localhost:4310", origin: "http://localhost:4310" }, "POST")).toBe(200);
  });

  it("turns foreign hosts and origins away", () => {
    expect(ask({ host: "evil.example" })).toBe(403);
    expect(ask({ host: "127.0.0.1:4310", origin: "http://evil.example" }, "POST")).toBe(403);
    expect(ask({ host: "127.0.0.1:4310", origin: "null" }, "POST")).toBe(403);
    expect(ask({ host: "127.0.0.1:4310", "sec-fetch-site": "cross-site" }, "DELETE")).toBe(403);
  });
});
