import "fake-indexeddb/auto";
import { clear, entries, set as keep } from "idb-keyval";
import { apply, type Patches } from "mutative";
import { documentOf, emptyJob, type JobDocument, type KeptLeftover, type StoredJob } from "@/core/job";
import { readRowLine } from "@/core/callout";
import { rowNames } from "@/core/job";
import { useJob } from "./jobStore";
import { tabName } from "./tab";
import type { Unsent } from "./unsent";

/** An answer read in this test's own realm, as a page reads it in its own. */
const reply = (body: unknown, status = 200) =>
  ({ ok: status < 400, status, json: async () => JSON.parse(JSON.stringify(body)) as unknown }) as Response;

let tests = 0;

/** A server that keeps one job, remembers its saves, can be away, break, refuse, and lose its answers on the way. */
class FakeServer {
  // A job of its own for every test: what one leaves on its way is no other's.
  id = `j${++tests}`;
  job: JobDocument = documentOf(emptyJob("Lid", "mm", "brass"));
  revision = 1;
  away = false;
  broken = false;
  losesAnswer = false;
  puts = 0;
  refuse = "";
  saves: { id: string; revision: number }[] = [];
  /** A name that no row may have, as a server of another version sees it. */
  refusesName = "";
  leftovers: KeptLeftover[] = [];
  fetch = async (url: string, init?: RequestInit): Promise<Response> => {
    if (this.away) throw new TypeError("failed to fetch");
    if (url.includes("/leftovers")) return this.beside(url, init);
    if (!init?.method) return reply(this.stored());
    this.puts++;
    const { base, save, patches } = JSON.parse(String(init?.body)) as { base: number; save: string; patches: never };
    if (this.broken) return reply({ problems: [{ message: "something went wrong" }] }, 500);
    if (this.refuse) return reply({ problems: [{ message: this.refuse }] }, 422);
    const done = this.saves.find((s) => s.id === save);
    if (done) return reply({ revision: done.revision });
    if (base !== this.revision) return reply(this.stored(), 409);
    const next = apply(this.job, patches);
    const at = next.parts[0].rows.findIndex((r) => this.refusesName && r.name === this.refusesName);
    if (at >= 0) {
      const place = ["parts", 0, "rows", at, "name"];
      return reply({ problems: [{ message: "no such name", place }] }, 422);
    }
    this.job = next;
    this.revision++;
    this.saves = [{ id: save, revision: this.revision }, ...this.saves];
    if (this.losesAnswer) throw new TypeError("failed to fetch");
    return reply({ revision: this.revision });
  };
  private beside(url: string, init?: RequestInit): Response {
    if (init?.method === "POST") {
      const { job, base } = JSON.parse(String(init.body)) as { job: JobDocument; base: number };
      this.leftovers.push({ id: `l${this.leftovers.length}`, job, base, at: "2026-11-25T00:00:00Z" });
      return reply({ id: "l" }, 201);
    }
    if (init?.method === "DELETE") this.leftovers = this.leftovers.filter((l) => !url.endsWith(l.id));
    return reply({ leftovers: this.leftovers });
  }
  stored = (): StoredJob => ({
    id: this.id,
    job: this.job,
    revision: this.revision,
    changedAt: "2026-11-25T00:00:00Z",
    saves: this.saves,
  });
}

let server: FakeServer;
const row = (text: string, id: string) => {
  const r = readRowLine(text, rowNames([]), id);
  if (!r.ok) throw new Error(r.error.message);
  return r.row;
};
const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const until = async (test: () => boolean) => {
  for (let i = 0; i < 100 && !test(); i++) await wait(50);
  expect(test()).toBe(true);
};
const s = () => useJob.getState();
const add = (id: string) => s().edit([{ edit: "addRows", rows: [row("LEAVE BLOCK 1 X 1 X 1", id)] }], "row");

beforeEach(async () => {
  await clear();
  server = new FakeServer();
  globalThis.fetch = server.fetch as typeof fetch;
  await s().open(server.stored());
});
afterEach(async () => {
  Object.assign(server, { away: false, broken: false, refuse: "", losesAnswer: false });
  s().close();
  await wait(20);
});

describe("the open job", () => {
  it("saves what was typed within half a second, several edits in one go", async () => {
    add("a");
    add("b");
    expect(server.puts).toBe(0);
    await until(() => s().save === "saved" && server.revision === 2);
    expect(server.puts).toBe(1);
    expect(server.job.parts[0].rows.map((r) => r.id)).toEqual(["a", "b"]);
    expect(s().pending).toBe(false);
  });

  it("undoes and does again, a hundred steps and more", async () => {
    for (let i = 0; i < 150; i++) add(`r${i}`);
    for (let i = 0; i < 150; i++) s().undo();
    expect(s().job!.rows).toHaveLength(0);
    s().undo();
    for (let i = 0; i < 150; i++) s().redo();
    expect(s().job!.rows).toHaveLength(150);
    expect(s().future).toHaveLength(0);
    s().undo();
    add("fresh");
    expect(s().future).toHaveLength(0);
    await until(() => s().save === "saved" && !s().pending);
    expect(server.job).toEqual(s().document);
  });

  it("can still undo and do again after the page was loaded anew", async () => {
    add("a");
    add("b");
    s().undo();
    await until(() => s().save === "saved" && !s().pending);
    await wait(400);
    s().close();
    await s().open(server.stored());
    expect([s().past.length, s().future.length]).toEqual([1, 1]);
    s().redo();
    expect(s().job!.rows.map((r) => r.id)).toEqual(["a", "b"]);
    s().undo();
    s().undo();
    expect(s().job!.rows).toHaveLength(0);
    await until(() => s().save === "saved" && !s().pending);
    expect(server.job).toEqual(s().document);
  });

  it("undoes nothing of a job that was changed elsewhere meanwhile", async () => {
    add("a");
    await until(() => s().save === "saved" && !s().pending);
    await wait(400);
    s().close();
    server.job = { ...server.job, name: "changed there" };
    server.revision++;
    await s().open(server.stored());
    expect(s().past).toHaveLength(0);
    expect(s().job).toMatchObject({ name: "changed there" });
  });

  it("goes on while the server is away, and sends everything when it is back", async () => {
    server.away = true;
    add("a");
    await until(() => s().save === "away");
    add("b");
    expect(s().job!.rows).toHaveLength(2);
    server.away = false;
    await until(() => s().save === "saved");
    expect(server.job.parts[0].rows).toHaveLength(2);
  });

  it("does not overwrite another window: the user keeps this job", async () => {
    server.job = { ...server.job, name: "changed there" };
    server.revision = 5;
    add("a");
    await until(() => s().save === "conflict");
    expect(server.job.parts[0].rows).toHaveLength(0);
    expect(s().conflict?.revision).toBe(5);
    await s().settle("mine");
    await until(() => s().save === "saved" && server.job.parts[0].rows.length === 1);
    expect(server.job.name).toBe("Lid");
  });

  it("or takes the other window's", async () => {
    server.job = { ...server.job, name: "changed there" };
    server.revision = 5;
    add("a");
    await until(() => s().save === "conflict");
    await s().settle("theirs");
    expect(s().job).toMatchObject({ name: "changed there", rows: [] });
    expect(s().save).toBe("saved");
  });

  it("says what the server refused, and keeps what was typed", async () => {
    server.refuse = "the document would be broken";
    add("a");
    await until(() => s().save === "refused");
    expect(s().message).toContain("broken");
    expect(s().job!.rows).toHaveLength(1);
    server.refuse = "";
    add("b");
    await until(() => s().save === "saved");
    expect(server.job.parts[0].rows).toHaveLength(2);
  });

  it("tells why an edit cannot be done", () => {
    add("a");
    expect(add("a")).toMatch(/already/);
    expect(s().edit([{ edit: "deleteRow", id: "nobody" }])).toBe("this row is gone");
    expect(s().edit([])).toBeNull();
    expect(s().past).toHaveLength(1);
  });
});

describe("what the server does not take", () => {
  it("is set aside as soon as something else is typed, which is saved", async () => {
    server.refusesName = "bad";
    add("a");
    await until(() => s().save === "saved");
    s().edit([{ edit: "addRows", rows: [{ ...row("LEAVE BLOCK 2 X 2 X 2", "x"), name: "bad" }] }]);
    await until(() => s().save === "refused");
    add("b");
    await until(() => s().save === "saved");
    expect(server.job.parts[0].rows.map((r) => r.id)).toEqual(["a", "b"]);
    expect(s().document!.parts[0].rows.map((r) => r.id)).toEqual(["a", "b"]);
    await until(() => s().offered.length === 1);
    const [aside] = s().offered;
    expect(aside.why).toBe("refused");
    expect(aside.document!.parts[0].rows.map((r) => r.id)).toEqual(["a", "x", "b"]);
    add("c");
    await until(() => server.job.parts[0].rows.length === 3);
    s().letGo(aside);
    expect(s().offered).toEqual([]);
  });

  it("heals where an older version had taken text that cannot be kept", async () => {
    const poisoned = { ...row("CUT FACE DEEP 1", "x"), name: "a\u0000b" };
    const rest = [{ op: "add", path: ["parts", 0, "rows", 0], value: poisoned }] as Patches;
    s().close();
    await keep(`unsent-${server.id}@${await tabName()}`, {
      base: 1,
      batch: null,
      rest,
      restId: "r",
      job: null,
      at: "",
    });
    await s().open(server.stored());
    await until(() => s().save === "saved" && server.revision === 2);
    expect(server.job.parts[0].rows[0].name).toBe("a\ufffdb");
  });
});

describe("two windows on one job", () => {
  const other = row("LEAVE BLOCK 9 X 9 X 9", "colleague");
  const meanwhile = async () => {
    add("a");
    await until(() => s().save === "saved");
    server.job = apply(server.job, [{ op: "add", path: ["parts", 0, "rows", 1], value: other }] as Patches);
    server.revision++;
    add("mine");
    await until(() => s().save === "conflict");
  };
  const ids = (d: JobDocument | null) => d!.parts[0].rows.map((r) => r.id);

  it("keep what is replaced here for both of them", async () => {
    await meanwhile();
    await s().settle("mine");
    await until(() => s().save === "saved");
    expect(ids(server.job)).toEqual(["a", "mine"]);
    expect(server.leftovers.map((l) => ids(l.job))).toEqual([["a", "colleague"]]);
    await until(() => s().offered.length === 1);
    expect(s().offered[0]).toMatchObject({ why: "replaced", kept: { server: "l0" } });
    // The other window looks when it is looked at again.
    await s().lookAside();
    s().takeUp(s().offered[0]);
    await until(() => s().save === "saved" && server.leftovers.length === 0);
    expect(ids(server.job)).toEqual(["a", "colleague"]);
  });

  it("give back with undo what was taken from the other one", async () => {
    await meanwhile();
    await s().settle("theirs");
    expect(ids(s().document)).toEqual(["a", "colleague"]);
    expect(server.leftovers.map((l) => ids(l.job))).toEqual([["a", "mine"]]);
    s().undo();
    expect(ids(s().document)).toEqual(["a", "mine"]);
    await until(() => s().save === "saved");
    expect(ids(server.job)).toEqual(["a", "mine"]);
  });

  it("keep it in the browser where the server cannot", async () => {
    await meanwhile();
    server.away = true;
    await s().settle("theirs");
    server.away = false;
    const kept = (await entries<string, Unsent>()).filter(([k]) => k.includes("@aside-"));
    expect(kept.map(([, u]) => ids(u.job))).toEqual([["a", "mine"]]);
  });
});

describe("a save whose answer was lost", () => {
  it("is sent again under its own id, and is no conflict and no second row", async () => {
    server.losesAnswer = true;
    add("a");
    await until(() => s().save === "away");
    server.losesAnswer = false;
    await until(() => s().save === "saved");
    expect(server.job.parts[0].rows.map((r) => r.id)).toEqual(["a"]);
    expect(server.revision).toBe(2);
    add("b");
    await until(() => server.revision === 3);
    expect(server.job.parts[0].rows.map((r) => r.id)).toEqual(["a", "b"]);
  });

  it("nor when the page is loaded again before the retry", async () => {
    server.losesAnswer = true;
    add("a");
    await until(() => s().save === "away");
    const kept = await entries<string, unknown>();
    expect(kept).toHaveLength(1);
    // The page goes and comes back: what it kept is all that is left of it.
    s().close();
    server.away = true;
    await clear();
    await keep(kept[0][0], kept[0][1]);
    server.losesAnswer = server.away = false;
    const { reconcile } = await import("./reconcile");
    expect(reconcile(server.stored(), kept[0][1] as Unsent)).toEqual({ kind: "none" });
    expect(
      reconcile(
        { ...server.stored(), saves: [], revision: 1, job: documentOf(emptyJob("Lid", "mm", "brass")) },
        kept[0][1] as Unsent,
      ),
    ).toMatchObject({ kind: "fits", job: { parts: [{ rows: [{ id: "a" }] }] } });
  });

  it("nor when the page went so fast that it kept nothing of the save but its id", async () => {
    const { reconcile } = await import("./reconcile");
    const rest = [{ op: "add", path: ["parts", 0, "rows", 0], value: row("CUT FACE DEEP 1", "x") }] as Patches;
    const kept = { base: 1, batch: null, rest, restId: "sent-by-the-page-before", job: null, at: "" };
    const saves = [{ id: "sent-by-the-page-before", revision: 2 }];
    expect(reconcile({ ...server.stored(), revision: 2, saves }, kept)).toEqual({ kind: "none" });
    // Read before the save arrived: sent again under the same id, which the server then knows.
    expect(reconcile(server.stored(), kept)).toMatchObject({ kind: "fits", restId: "sent-by-the-page-before" });
    await keep(`unsent-${server.id}@${await tabName()}`, kept);
    const before = server.stored();
    await s().open(before);
    server.job = { ...server.job, parts: [{ ...server.job.parts[0], rows: [row("CUT FACE DEEP 1", "x")] }] };
    server.revision = 2;
    server.saves = saves;
    await until(() => s().save === "saved" && !s().pending);
    expect(s().conflict).toBeNull();
    expect(server.job.parts[0].rows).toHaveLength(1);
  });

  it("going back to the shelf right after Enter saves, and coming back finds one row", async () => {
    add("a");
    s().close();
    await until(() => server.revision === 2);
    await wait(50);
    expect(await entries()).toHaveLength(0);
    await s().open(server.stored());
    expect(s()).toMatchObject({ save: "saved", conflict: null });
    expect(s().job!.rows.map((r) => r.id)).toEqual(["a"]);
    add("b");
    await until(() => server.revision === 3);
    expect(server.job.parts[0].rows.map((r) => r.id)).toEqual(["a", "b"]);
  });

  it("coming back with what the server told before its answer came shows what was typed", async () => {
    const before = server.stored();
    add("a");
    s().close();
    await s().open(before);
    expect(s().job!.rows.map((r) => r.id)).toEqual(["a"]);
    await until(() => s().save === "saved");
    expect(server.job.parts[0].rows.map((r) => r.id)).toEqual(["a"]);
  });
});

describe("when the server does not save", () => {
  it("says since when and why, and tries again with growing pauses until it does", async () => {
    server.broken = true;
    const from = Date.now();
    add("a");
    await until(() => s().save === "away");
    expect(s().message).toMatch(/could not save/);
    expect(s().since).toBeGreaterThanOrEqual(from);
    await until(() => server.puts >= 3);
    // 1 s, then 2 s: never a hail of tries.
    expect(Date.now() - from).toBeGreaterThan(2900);
    server.broken = false;
    s().saveNow();
    await until(() => s().save === "saved");
    expect(s().since).toBeNull();
    expect(server.job.parts[0].rows).toHaveLength(1);
  });

  it("tries again by itself after a refusal too", async () => {
    server.refuse = "not now";
    add("a");
    await until(() => s().save === "refused");
    expect(s().message).toContain("not now");
    server.refuse = "";
    await until(() => s().save === "saved");
    expect(server.job.parts[0].rows).toHaveLength(1);
  });

  it("refuses first what the server would refuse, by the same schema, and keeps the job", () => {
    const many = Array.from({ length: 2001 }, (_, i) => row("CUT FACE DEEP 1", `r${i}`));
    expect(s().edit([{ edit: "addRows", rows: many }])).toMatch(/cannot be kept: rows/);
    expect(s().refusal).toMatch(/cannot be kept/);
    expect(s().job!.rows).toHaveLength(0);
    expect(s().pending).toBe(false);
    add("a");
    expect(s().refusal).toBe("");
  });
});

describe("what closed windows left", () => {
  const none = [] as Patches;
  const patch = (id: string) =>
    [{ op: "add", path: ["parts", 0, "rows", 0], value: row("CUT FACE DEEP 1", id) }] as Patches;
  const left = (tab: string, unsent: object) => keep(`unsent-${server.id}@${tab}`, unsent);

  it("is offered, a window each, and taken up with an undo", async () => {
    await left("one", {
      base: 1,
      batch: null,
      rest: patch("x"),
      job: { ...server.job, parts: [{ ...server.job.parts[0], rows: [row("CUT FACE DEEP 1", "x")] }] },
      at: "2026-11-25T10:00:00Z",
    });
    await left("two", {
      base: 1,
      batch: { id: "lost-answer", patches: patch("y") },
      rest: none,
      job: server.job,
      at: "",
    });
    await s().open(server.stored());
    expect(s().job!.rows).toHaveLength(0);
    expect(s().offered.map((o) => [o.fitsOn === s().document, o.count])).toEqual([
      [true, 1],
      [true, 1],
    ]);
    s().takeUp(s().offered[0]);
    expect(s().job!.rows.map((r) => r.id)).toEqual(["x"]);
    expect(s().offered.map((o) => o.fitsOn === s().document)).toEqual([false]);
    s().undo();
    expect(s().job!.rows).toHaveLength(0);
    await wait(20);
    expect((await entries<string, unknown>()).map(([k]) => k)).not.toContain(`unsent-${server.id}@one`);
    expect((await entries<string, unknown>()).map(([k]) => k)).toContain(`unsent-${server.id}@two`);
  });

  it("is not offered when the server has it", async () => {
    server.saves = [{ id: "lost-answer", revision: 1 }];
    await left("two", {
      base: 0,
      batch: { id: "lost-answer", patches: patch("y") },
      rest: none,
      job: server.job,
      at: "",
    });
    await s().open(server.stored());
    expect(s().offered).toHaveLength(0);
    expect(await entries()).toHaveLength(0);
  });

  it("that no longer fits is shown as it was, and never put on top", async () => {
    server.revision = 7;
    await left("old", {
      base: 3,
      batch: null,
      rest: patch("x"),
      job: { ...server.job, name: "as it was there" },
      at: "",
    });
    // An older version kept the patches alone.
    await keep(`unsent-${server.id}`, { base: 3, patches: patch("z") });
    await s().open(server.stored());
    expect(s().job!.name).toBe("Lid");
    expect(s().offered.map((o) => [o.fitsOn !== null, o.document?.name ?? null])).toEqual(
      expect.arrayContaining([
        [false, "as it was there"],
        [false, null],
      ]),
    );
    expect(await entries()).toHaveLength(2);
    s().offered.forEach((o) => s().letGo(o));
    expect(s().offered).toHaveLength(0);
  });

  it("one window never empties the other's store", async () => {
    await left("other", { base: 1, batch: null, rest: patch("x"), job: server.job, at: "" });
    add("a");
    await until(() => s().save === "saved");
    expect((await entries<string, unknown>()).map(([k]) => k)).toEqual([`unsent-${server.id}@other`]);
  });
});

describe("a slip that is tried", () => {
  const slip = () => s().tryOut([{ edit: "setHead", head: { name: "tried" } }], "radius-for-diameter");

  it("is shown, is no part of the job, and is never saved", async () => {
    add("a");
    await until(() => s().save === "saved");
    const puts = server.puts;
    expect(slip()).toBeNull();
    expect(s().job!.name).toBe("tried");
    expect(slip()).toMatch(/another slip/);
    expect(add("b")).toMatch(/being tried/);
    await wait(500);
    expect(server.puts).toBe(puts);
    expect(await entries()).toHaveLength(0);
    s().endTrial("back");
    expect(s().job!.name).toBe("Lid");
    expect(s().past).toHaveLength(1);
  });

  it("is made when it is kept, and undone like any edit", async () => {
    slip();
    s().endTrial("keep");
    expect(s().job!.name).toBe("tried");
    await until(() => server.job.name === "tried");
    s().undo();
    expect(s().job!.name).toBe("Lid");
    slip();
    s().undo();
    expect(s()).toMatchObject({ trial: null, job: { name: "Lid" } });
  });
});
